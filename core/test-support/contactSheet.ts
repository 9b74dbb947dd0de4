import sharp, { type OverlayOptions } from 'sharp'

/** A picture of a contact sheet: interleaved RGBA bytes, and what stands over it. */
export interface SheetCell {
  readonly words: string
  readonly width: number
  readonly height: number
  readonly pixels: Uint8ClampedArray | Uint8Array
}

const LABEL = 18

/** Pictures side by side, cut to 3 : 2, as one JPEG file. @param cellWidth px of each */
export async function contactSheet(cells: readonly SheetCell[], columns: number, cellWidth: number): Promise<Buffer> {
  const cellHeight = Math.round((cellWidth * 2) / 3)
  const parts: OverlayOptions[] = []
  for (const [i, { words, width, height, pixels }] of cells.entries()) {
    const [left, top] = [(i % columns) * cellWidth, Math.floor(i / columns) * (cellHeight + LABEL)]
    const label = `<svg width="${cellWidth}" height="${LABEL}"><text x="4" y="13" font-family="sans-serif" font-size="12" fill="#fff">${words}</text></svg>`
    const raw = { width, height, channels: 4 as const }
    const input = await sharp(Buffer.from(pixels), { raw }).removeAlpha().resize(cellWidth, cellHeight, { fit: 'cover' }).png().toBuffer()
    parts.push({ input, left, top: top + LABEL }, { input: Buffer.from(label), left, top })
  }
  const size = { width: columns * cellWidth, height: Math.ceil(cells.length / columns) * (cellHeight + LABEL) }
  return sharp({ create: { ...size, channels: 3, background: '#222222' } })
    .composite(parts)
    .jpeg({ quality: 78 })
    .toBuffer()
}
