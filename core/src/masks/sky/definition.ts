import { z } from 'zod'
import { lengthControl, percentControl } from '../../model/controls'
import type { GraphNode } from '../../graph/node'
import { horizonOf } from '../../model/marks'
import type { SmallCodes } from '../../model/reading'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { morphologyNode } from '../../operations/blurs/morphology/morphology'
import { smallCodesNode } from '../../operations/distance/readDistance/readDistance'
import { combineMasksNode } from '../../operations/masks/combineMasks/combineMasks'
import { lineMaskNode } from '../../operations/masks/shapeMasks/lineMask'
import { skyMaskNode } from '../../operations/masks/skyMask/skyMask'
import type { Size } from '../../planes/grid'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'

export const skyMaskSchema = z.strictObject({
  ...maskBase,
  kind: z.literal('sky'),
  tolerance: percentControl(
    'Tolerance',
    'How far a place may differ from the sky around it: higher takes in clouds, lower keeps out hazy hills.',
  ),
  calm: lengthControl({
    label: 'Calm',
    usual: [0, 6],
    hard: [0, 40],
    step: 0.1,
    hint: 'Smooths the grain of the photo before it is judged.',
  }),
})
export type SkyMask = z.infer<typeof skyMaskSchema>

/** Height of the horizon in a photo that has no mark of it. */
const LIKELY_HORIZON = 0.62
/** The same for one that was read and shows none: all of it may be sky. */
const READ_WITHOUT_HORIZON = 1

/** Since this method of reading a photo in which neither sky nor horizon was seen is held to be sky in its upper part, softly, if anywhere. */
const FADES_SINCE = 6
const UPPER = { open: 0.1, shut: 0.75 }

function upperPart({ height }: Size): GraphNode {
  return lineMaskNode({ x: 0, y: UPPER.open * height, toX: 0, toY: UPPER.shut * height })
}

/** 1 in the sky that was read and a little around it, softly ending. */
function nearReadSky(sky: SmallCodes, photo: Size): GraphNode {
  const pixel = photo.width / sky.width
  return gaussianBlurNode(morphologyNode(smallCodesNode(sky), 3 * pixel), pixel)
}

export const skyMaskKind: MaskDefinition<SkyMask> = {
  kind: 'sky',
  keeps: true,
  label: 'Sky',
  hint: 'The sky above the horizon, without what stands in front of it',
  start: () => ({ kind: 'sky', tolerance: 8, calm: 0.8 }),
  summary: () => 'the sky',
  node({ tolerance, calm }, { photo, photoId, picture, marks }) {
    const { y, turn } = horizonOf(marks) ?? { y: (marks.reading ? READ_WITHOUT_HORIZON : LIKELY_HORIZON) * photo.height, turn: 0 }
    const params = { photoId, x: photo.width / 2, y, turn, tolerance: Math.max(0.2, tolerance) / 100 }
    const mask = skyMaskNode(gaussianBlurNode(picture, calm), params)
    const { reading } = marks
    if (marks.horizon || !reading) return mask
    // What looks like the sky and lies elsewhere, as water does, is none.
    if (reading.sky) return combineMasksNode(mask, nearReadSky(reading.sky, photo), { join: 'keep', strength: 1 })
    return reading.horizon || reading.method < FADES_SINCE ? mask : combineMasksNode(mask, upperPart(photo), { join: 'keep', strength: 1 })
  },
}
