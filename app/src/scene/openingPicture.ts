import { create } from 'zustand'
import { renderPool } from '../engine/engine'
import { openingPictureOf } from '../storage/scenes'

/** What is shown until the first picture of a scene is there, as the browser itself reads it. */
export const useOpeningPicture = create<{ readonly picture: ImageBitmap | undefined }>(() => ({ picture: undefined }))

/** The file that is shown, or will be. */
let wanted: Blob | undefined

/** Shows a picture while a scene is being opened; nothing, once there is a better one. @param fileName of a photo, which may be one that the browser does not read itself */
export function showWhileOpening(file: Blob | undefined, fileName?: string): void {
  if (file === wanted) return
  wanted = file
  const { picture } = useOpeningPicture.getState()
  if (picture) useOpeningPicture.setState({ picture: undefined })
  picture?.close()
  if (file) void readAndShow(file, fileName)
}

async function readAndShow(file: Blob, fileName: string | undefined): Promise<void> {
  const picture = await toShow(file).catch(() => (fileName === undefined ? undefined : readQuickly(file, fileName).catch(() => undefined)))
  if (wanted === file) useOpeningPicture.setState({ picture })
  else picture?.close()
}

/** No larger than the screen; and let go by hand, since the browser keeps the pictures of image elements for long. */
function toShow(picture: Blob | ImageData): Promise<ImageBitmap> {
  const width = Math.round(window.innerWidth * window.devicePixelRatio)
  return createImageBitmap(picture, { resizeWidth: width, resizeQuality: 'medium' })
}

/** What takes long to read is there at half its size before. */
async function readQuickly(file: Blob, fileName: string): Promise<ImageBitmap | undefined> {
  const pool = await renderPool()
  const picture = await pool.quickPicture(new Uint8Array(await file.arrayBuffer()), fileName)
  return picture && toShow(new ImageData(picture.pixels, picture.width, picture.height))
}

/** Shows what is stored of a scene, unless something is shown already: the photo that was just dropped. */
export async function showStoredWhileOpening(sceneId: string, signal: AbortSignal): Promise<void> {
  const file = await openingPictureOf(sceneId)
  if (!signal.aborted && !wanted) showWhileOpening(file)
}
