import type { Repair } from '@welkinar/core'
import { useScene } from '../../scene/sceneStore'

/** Changes one mended spot of the open scene. */
export function changeRepair(id: string, label: string, change: (repair: Repair) => void, gesture?: string): void {
  useScene.getState().change(
    label,
    ({ groundwork }) => {
      const repair = groundwork.repairs.find((one) => one.id === id)
      if (repair) change(repair)
    },
    gesture && `${id} ${gesture}`,
  )
}

export function removeRepair(id: string): void {
  useScene.getState().change('Take the repair away', ({ groundwork }) => {
    groundwork.repairs = groundwork.repairs.filter((one) => one.id !== id)
  })
}
