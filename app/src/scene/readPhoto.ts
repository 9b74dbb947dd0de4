import { NOT_READ, nothingRead, sceneGraph, type PictureSource, type Reading, type Scene } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useEffect, useState } from 'react'
import { create } from 'zustand'
import { keepChoice, keptChoice } from '../common/keptChoice'
import { useReadOnly, useScene } from './sceneStore'

/** Where it is kept whether photos are read by themselves. */
const KEY = 'welkinar reads photos'

/** Whether new photos are read by themselves, and whether one is being read. */
export const useReading = create<{ byItself: boolean; busy: boolean }>(() => ({
  byItself: keptChoice(KEY) !== 'no',
  busy: false,
}))

export function readByItself(on: boolean): void {
  keepChoice(KEY, on ? 'yes' : 'no')
  useReading.setState({ byItself: on })
}

/**
 * Reads the photo of the open scene and keeps in it what was found: where that changes the picture, as a step that can be undone.
 * @throws what the pool throws
 */
export async function readPhoto(pool: RenderPool, photoId: string, signal?: AbortSignal): Promise<void> {
  useReading.setState({ busy: true })
  try {
    const found = await pool.readPhoto(photoId, signal)
    if (useScene.getState().history?.scene.photo.id === photoId) keep(found)
  } finally {
    useReading.setState({ busy: false })
  }
}

function keep(found: Reading): void {
  const { history, change, settle } = useScene.getState()
  if (!history) return
  const { scene } = history
  const take = (reading: Reading) => (one: Scene) => void (one.marks.reading = reading)
  const isNew = scene.marks.reading?.method === NOT_READ
  const read = { ...scene, marks: { ...scene.marks, reading: found } }
  if (isNew && sceneGraph(read).key === sceneGraph(scene).key) return settle(take(found))
  // Whoever undoes the step does not want it read once more at the next opening.
  if (isNew) settle(take(nothingRead))
  change('Read the photo', take(found))
}

/** Reads a photo that has not been read yet, once its picture is there. */
export function useReadingByItself(pool: RenderPool, { photo, marks }: PictureSource, isShown: boolean): void {
  const byItself = useReading((state) => state.byItself)
  const readOnly = useReadOnly() !== undefined
  const [wasShown, setWasShown] = useState(false)
  if (isShown && !wasShown) setWasShown(true)
  const wanted = marks?.reading?.method === NOT_READ && byItself && wasShown && !readOnly
  useEffect(() => {
    if (!wanted) return
    const abort = new AbortController()
    readPhoto(pool, photo.id, abort.signal).catch((error: unknown) => {
      if (abort.signal.aborted) return
      console.warn(error)
      useScene.getState().settle((scene) => void (scene.marks.reading = nothingRead))
    })
    return () => abort.abort()
  }, [pool, photo.id, wanted])
}
