/** Rounded to seven digits, so that every machine plans with the same number. */
export function steady(value: number): number {
  return Number(value.toPrecision(7))
}
