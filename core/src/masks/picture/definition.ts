import { z } from 'zod'
import { luminosityMaskNode } from '../../operations/masks/luminosityMask/luminosityMask'
import { withRoles } from '../../model/roles'
import { photoNode } from '../../operations/sources/photo/photo'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'

/** A picture that lies beside the document, by the SHA-256 of its file. */
export const pictureReference = withRoles(
  z.strictObject({ id: z.string().min(1), fileName: z.string(), width: z.int().min(1), height: z.int().min(1) }),
  { refersTo: 'picture' },
)

export type PictureReference = z.infer<typeof pictureReference>

export const pictureMaskSchema = z.strictObject({ ...maskBase, kind: z.literal('picture'), picture: pictureReference.nullable() })
export type PictureMask = z.infer<typeof pictureMaskSchema>

export const pictureMaskKind: MaskDefinition<PictureMask> = {
  kind: 'picture',
  label: 'Picture',
  hint: 'A grey picture from a file: white is open',
  start: () => ({ kind: 'picture', picture: null }),
  summary: ({ picture }) => picture?.fileName ?? 'a picture',
  node({ picture }) {
    if (!picture) return undefined
    return luminosityMaskNode(photoNode(picture.id), {
      channel: 'encodedLuma',
      curve: 'brights',
      handles: [0, 1, 1, 1],
      steepness: 0,
    })
  },
  problem({ picture }, { photo }) {
    if (!picture) return 'No picture is chosen yet; the mask is left out.'
    const stretched = Math.abs(picture.width / picture.height / (photo.width / photo.height) - 1) > 0.01
    return stretched
      ? `The picture (${picture.width} × ${picture.height}) has other proportions than the photo; it is stretched to fit.`
      : undefined
  },
}
