import type { SmallPhoto } from './smallPhoto'

/** What of a difference goes over at a time, and the edge of the photo that stops most of it. */
const PART = 0.25
const EDGE = 0.035

/** Evens out along rows or columns what is known of each place of a photo, but for where the photo has an edge: diffusion that edges stop (Perona and Malik 1990), in place. */
export function evenOut(
  { width, height, edges }: SmallPhoto,
  values: Float32Array,
  { times, along }: { readonly times: number; readonly along: 'rows' | 'columns' },
): void {
  const [length, step, lines, lineStep] = along === 'rows' ? [width, 1, height, width] : [height, width, width, 1]
  const line = new Float32Array(length)
  // What goes over between each place and the one before.
  const open = new Float32Array(length)
  for (let k = 0; k < lines; k++) {
    let before = 0
    for (let j = 0; j < length; j++) {
      const i = k * lineStep + j * step
      const own = PART * Math.exp(-(((edges[i] as number) / EDGE) ** 2))
      line[j] = values[i] as number
      open[j] = Math.min(own, before)
      before = own
    }
    for (let time = 0; time < times; time++) {
      let last = line[0] as number
      let came = 0
      for (let j = 1; j < length; j++) {
        const own = line[j] as number
        const flow = (open[j] as number) * (own - last)
        line[j - 1] = last - came + flow
        ;[last, came] = [own, flow]
      }
      line[length - 1] = last - came
    }
    for (let j = 0; j < length; j++) values[k * lineStep + j * step] = line[j] as number
  }
}
