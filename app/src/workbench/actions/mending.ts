import type { Repair } from '@welkinar/core'
import { create } from 'zustand'

interface Mending {
  /** Of the next spot, photo px; that of the photo without it. */
  readonly radius: number | undefined
  readonly keeps: Repair['keeps']
}

/** How the next spot is mended. */
export const useMending = create<Mending>()(() => ({ radius: undefined, keeps: 'nothing' }))
