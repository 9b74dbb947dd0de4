import type { PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { createContext, useContext } from 'react'
import { useOutletContext } from 'react-router'
import type { OpenScene } from './openScene'

/** The open scene, for a screen of it. */
export function useOpenScene(): OpenScene {
  return useOutletContext<OpenScene>()
}

/** The threads that compute the pictures of the open scene. */
export function usePool(): RenderPool {
  return useOpenScene().pool
}

/** What the picture of a part of the screen depends on. */
export const SourceContext = createContext<PictureSource | undefined>(undefined)

/** What the picture depends on, in the part of the screen where it is asked. */
export function useSource(): PictureSource {
  const source = useContext(SourceContext)
  if (!source) throw new Error('No part of the screen here says which picture it shows.')
  return source
}
