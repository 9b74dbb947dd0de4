import Box from '@mui/material/Box'
import { ink } from '../../theme'

/** Hues at one lightness and chroma, so that the strip says hue and nothing else. */
const hues = Array.from({ length: 25 }, (_, i) => `oklch(0.68 0.13 ${i * 15})`).join(', ')

/** All hues, and which of them are meant: degrees. */
export function HueStrip({ hue, width }: { readonly hue: number; readonly width: number }) {
  const from = (((hue - width / 2) % 360) + 360) % 360
  return (
    <Box aria-hidden sx={{ height: 22, position: 'relative', overflow: 'hidden', background: `linear-gradient(90deg, ${hues})` }}>
      {[from, from - 360].map((start) => (
        <Box
          key={start}
          sx={{
            position: 'absolute',
            left: `${start / 3.6}%`,
            width: `${width / 3.6}%`,
            bottom: 0,
            height: 5,
            bgcolor: ink.ink,
            borderTop: '1px solid #fff',
          }}
        />
      ))}
    </Box>
  )
}
