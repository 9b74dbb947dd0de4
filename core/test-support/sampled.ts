/** Whether all is tried that takes long by its nature (`npm run soak`). */
export const everything = Boolean(process.env['WELKINAR_EVERY_LOOK'])

/** The first of what takes long by its nature; all of it in the soak (`npm run soak`). */
export function sampled<T>(all: readonly T[]): readonly T[] {
  return everything ? all : all.slice(0, 1)
}
