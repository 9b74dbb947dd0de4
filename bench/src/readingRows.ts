import { readPhoto } from '../../core/src/reading/readPhoto'
import { limitRow, median, type Row } from './measure'
import type { BenchPhoto } from './photo24'

const RUNS = 5

/** Reading sky, horizon, light and distances from a photo that is open. */
export function readingRows({ kernels, photo }: BenchPhoto): Row[] {
  const times = Array.from({ length: RUNS }, () => {
    const start = performance.now()
    readPhoto(kernels, photo)
    return performance.now() - start
  })
  return [limitRow('Reading a photo, 24 MP, 1 thread', median(times), 1500)]
}
