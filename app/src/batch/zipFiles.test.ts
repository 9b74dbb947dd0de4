import { unzipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { zipped } from './zipFiles'

describe('files put together', () => {
  it('come out of the zip as they went in, under their names, empty ones too', async () => {
    const bytes = Uint8Array.from({ length: 200_000 }, (_, i) => (i * 7) % 251)
    const files = [
      { name: 'a.jpg', file: new Blob([bytes]) },
      { name: 'é “b”.png', file: new Blob([bytes.slice(0, 10)]) },
      { name: 'none.png', file: new Blob([]) },
    ]
    const [zip, ...more] = await zipped(files)
    expect(more).toEqual([])
    const found = unzipSync(new Uint8Array(await zip!.arrayBuffer()))
    expect(Object.keys(found)).toEqual(files.map(({ name }) => name))
    for (const { name, file } of files) expect(found[name]).toEqual(new Uint8Array(await file.arrayBuffer()))
  })
})
