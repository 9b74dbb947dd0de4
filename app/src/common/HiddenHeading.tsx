import Box from '@mui/material/Box'

interface HiddenHeadingProps {
  readonly level: 'h1' | 'h2'
  readonly children: string
}

/** A heading for those who hear the screen, where those who see it need none. */
export function HiddenHeading({ level, children }: HiddenHeadingProps) {
  return (
    <Box component={level} sx={{ position: 'absolute', width: '1px', height: '1px', m: 0, overflow: 'hidden', clipPath: 'inset(50%)' }}>
      {children}
    </Box>
  )
}
