import { z } from 'zod'
import { placeControl } from './controls'
import { idOf } from './roles'

/** A place of the photo that is looked at, pixel for pixel, while the picture is made. */
export const watchpointSchema = z.strictObject({ id: idOf('watchpoint'), x: placeControl('x'), y: placeControl('y') })
export type Watchpoint = z.infer<typeof watchpointSchema>
