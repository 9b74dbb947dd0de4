import Box from '@mui/material/Box'
import { hueOf, sceneGraph } from '@welkinar/core'
import { useRef, type PointerEvent } from 'react'
import { showProblem } from '../../../common/notices'
import { usePool, useSource } from '../../../scene/openSceneContext'
import { changeKind } from '../../../scene/sceneStore'
import type { EffectHandleProps, EffectSurfaceProps } from '../effectInterface'
import { limited, pointerPlace, toPhoto, type Point } from '../../onPhoto/geometry'
import { ToolHint } from '../../onPhoto/ToolHint'

/** Css px that the pointer goes for one per cent, or one degree. */
const PER_STEP = 2

/** A colour is pressed on the photo and pulled: to the sides its saturation changes, up and down its lightness, with Shift its hue. */
export function PullSurface({ tool, ...props }: EffectSurfaceProps<'oneHue'>) {
  return tool.kind === 'pull' ? <Pulling {...props} /> : null
}

interface Pull {
  readonly from: Point
  readonly gesture: string
  readonly before: { readonly shift: number; readonly saturation: number; readonly lightness: number }
}

function Pulling({ port, effect }: EffectHandleProps<'oneHue'>) {
  const pool = usePool()
  const source = useSource()
  const pull = useRef<Pull>(undefined)
  const change = (gesture: string, edit: (controls: typeof effect.controls) => void) =>
    changeKind('oneHue', effect.id, 'Pull a colour', ({ controls }) => edit(controls), gesture)
  const onPointerDown = (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0 || pull.current) return
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    const from = pointerPlace(event, event.currentTarget)
    const gesture = `pull ${effect.id} ${event.timeStamp}`
    const { shift, saturation, lightness } = effect.controls.shape
    pull.current = { from, gesture, before: { shift, saturation, lightness } }
    const { photo } = source
    const { x, y } = limited(toPhoto(port, from))
    pool
      .colourAt(
        sceneGraph(source, { kind: 'beneath', effectId: effect.id }),
        photo,
        within(x, 0, photo.width - 1),
        within(y, 0, photo.height - 1),
      )
      .then((colour) => change(gesture, ({ pattern }) => void (pattern.hue = Math.round(hueOf(colour)))))
      .catch((error: unknown) => showProblem(error, 'Reading the colour'))
  }
  const onPointerMove = (event: PointerEvent<HTMLElement>) => {
    if (!pull.current) return
    const { from, gesture, before } = pull.current
    const at = pointerPlace(event, event.currentTarget)
    const [right, up] = [Math.round((at.x - from.x) / PER_STEP), Math.round((from.y - at.y) / PER_STEP)]
    change(gesture, ({ shape }) => {
      if (event.shiftKey) shape.shift = within(before.shift + right, -180, 180)
      else {
        shape.saturation = within(before.saturation + right, -100, 400)
        shape.lightness = within(before.lightness + up, -100, 100)
      }
    })
  }
  const letGo = () => (pull.current = undefined)
  return (
    <>
      <Box
        data-testid="pull surface"
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={letGo}
        onPointerCancel={letGo}
        onDoubleClick={(event) => event.stopPropagation()}
        sx={{ position: 'absolute', inset: 0, cursor: 'move', touchAction: 'none' }}
      />
      <ToolHint text="Press a colour and pull: sideways its saturation, up and down its lightness, with Shift its hue." />
    </>
  )
}

function within(value: number, least: number, most: number): number {
  return Math.min(most, Math.max(least, value))
}
