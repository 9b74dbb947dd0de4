import { create } from 'zustand'
import { openingPictureOf } from '../storage/scenes'

/** What is shown until the first picture of a scene is there, as the browser itself reads it. */
export const useOpeningPicture = create<{ readonly picture: ImageBitmap | undefined }>(() => ({ picture: undefined }))

/** The file that is shown, or will be. */
let wanted: Blob | undefined

/** Shows a picture while a scene is being opened; nothing, once there is a better one. */
export function showWhileOpening(file: Blob | undefined): void {
  if (file === wanted) return
  wanted = file
  const { picture } = useOpeningPicture.getState()
  if (picture) useOpeningPicture.setState({ picture: undefined })
  picture?.close()
  if (file) void readAndShow(file)
}

async function readAndShow(file: Blob): Promise<void> {
  // No larger than the screen; and let go by hand, since the browser keeps the pictures of image elements for long.
  const width = Math.round(window.innerWidth * window.devicePixelRatio)
  const picture = await createImageBitmap(file, { resizeWidth: width, resizeQuality: 'medium' }).catch(() => undefined)
  if (wanted === file) useOpeningPicture.setState({ picture })
  else picture?.close()
}

/** Shows what is stored of a scene, unless something is shown already: the photo that was just dropped. */
export async function showStoredWhileOpening(sceneId: string, signal: AbortSignal): Promise<void> {
  const file = await openingPictureOf(sceneId)
  if (!signal.aborted && !wanted) showWhileOpening(file)
}
