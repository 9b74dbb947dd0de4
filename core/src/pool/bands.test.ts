import { expect, it } from 'vitest'
import { BAND_ROWS } from '../codecs/formats/fileFormat'
import { splitIntoTiles, type Rect } from '../planes/rect'
import { Bands } from './bands'

it('tiles of any place and order give bands of their own height, each as soon as it is whole', () => {
  const whole: Rect = { x: 30, y: 77, width: 70, height: 2 * BAND_ROWS + 9 }
  const codeAt = (x: number, y: number): number => (x * 7 + y * 13) % 251
  const bands = new Bands(whole, 8)
  const tiles = splitIntoTiles(whole, 48)
  // Columns, as two threads do them.
  const inOrder = tiles.toSorted((a, b) => a.x - b.x || a.y - b.y)
  const found = inOrder.flatMap((tile, number) => {
    const pixels = new Uint8ClampedArray(tile.width * tile.height * 4)
    for (let i = 0; i < pixels.length / 4; i++)
      pixels.fill(codeAt(tile.x + (i % tile.width), tile.y + Math.floor(i / tile.width)), 4 * i, 4 * i + 4)
    return bands.add(pixels, tile).map((one) => ({ ...one, number }))
  })
  expect(found.map(({ index, band }) => [index, band.width, band.height])).toEqual([
    [0, 70, BAND_ROWS],
    [1, 70, BAND_ROWS],
    [2, 70, 9],
  ])
  expect(found[0]?.number).toBeLessThan(inOrder.length - 2)
  for (const { index, band } of found) {
    const wanted = Array.from({ length: band.width * band.height }, (_, i) =>
      codeAt(whole.x + (i % band.width), whole.y + index * BAND_ROWS + Math.floor(i / band.width)),
    )
    expect(wanted.every((code, i) => band.data[4 * i] === code && band.data[4 * i + 3] === code)).toBe(true)
  }
})
