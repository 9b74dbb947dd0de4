import type { OutlineCorner, RegionMark } from '@welkinar/core'
import { useScene } from '../../scene/sceneStore'

const LIKELY_DISTANCE = 10

/** A region of the scene from what was outlined, at a distance that is then corrected. */
export function addRegion(corners: OutlineCorner[]): void {
  useScene.getState().change('Outline a region', ({ marks }) => {
    const name = `Region ${marks.regions.length + 1}`
    marks.regions.push({ id: crypto.randomUUID(), name, distance: LIKELY_DISTANCE, softness: 0, corners })
  })
}

/** Changes a region; one with fewer than three corners is gone. */
export function changeRegion(id: string, label: string, change: (region: RegionMark) => void, gesture?: string): void {
  useScene.getState().change(
    label,
    ({ marks }) => {
      const region = marks.regions.find((one) => one.id === id)
      if (region) change(region)
      if (region && region.corners.length < 3) removeFrom(marks.regions, id)
    },
    gesture && `${id} ${gesture}`,
  )
}

export function removeRegion(id: string): void {
  useScene.getState().change('Remove a region', ({ marks }) => removeFrom(marks.regions, id))
}

function removeFrom(regions: RegionMark[], id: string): void {
  regions.splice(
    regions.findIndex((one) => one.id === id),
    1,
  )
}

/** How the outline of a region is edited. */
export function editRegion(id: string) {
  return (label: string, change: (corners: OutlineCorner[]) => void, gesture?: string): void =>
    changeRegion(id, label, ({ corners }) => change(corners), gesture)
}
