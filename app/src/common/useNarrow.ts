import useMediaQuery from '@mui/material/useMediaQuery'

/** Media query of a window in which panels and depth line lie over the photo, one at a time: also one that is enlarged. */
export const NARROW = '@media (max-width: 1023px)'

export function useNarrow(): boolean {
  return useMediaQuery(NARROW)
}
