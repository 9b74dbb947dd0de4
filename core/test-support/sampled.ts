/** The first of what takes long by its nature; all of it in the soak (`npm run soak`). */
export function sampled<T>(all: readonly T[]): readonly T[] {
  return process.env['WELKINAR_EVERY_LOOK'] ? all : all.slice(0, 1)
}
