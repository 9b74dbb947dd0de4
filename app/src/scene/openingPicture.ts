import { create } from 'zustand'
import { openingPictureOf } from '../storage/scenes'

/** What is shown until the first picture of a scene is there, as the browser itself reads it. */
export const useOpeningPicture = create<{ readonly url: string | undefined }>(() => ({ url: undefined }))

/** Shows a picture while a scene is being opened; nothing, once there is a better one. */
export function showWhileOpening(picture: Blob | undefined): void {
  const { url } = useOpeningPicture.getState()
  if (!url && !picture) return
  if (url) URL.revokeObjectURL(url)
  useOpeningPicture.setState({ url: picture && URL.createObjectURL(picture) })
}

/** Shows what is stored of a scene, unless something is shown already: the photo that was just dropped. */
export async function showStoredWhileOpening(sceneId: string, signal: AbortSignal): Promise<void> {
  const picture = await openingPictureOf(sceneId)
  if (!signal.aborted && !useOpeningPicture.getState().url) showWhileOpening(picture)
}
