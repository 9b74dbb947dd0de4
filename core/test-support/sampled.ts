/** Whether all is tried that takes long by its nature (`npm run soak`). */
export const everything = Boolean(process.env['WELKINAR_EVERY_LOOK'])

/** Every nth of what takes long by its nature, from the first on; all of it in the soak. */
export function everyNth<T>(all: readonly T[], n: number): readonly T[] {
  return everything ? all : all.filter((_, i) => i % n === 0)
}

/** The first of what takes long by its nature; all of it in the soak (`npm run soak`). */
export function sampled<T>(all: readonly T[]): readonly T[] {
  return everything ? all : all.slice(0, 1)
}
