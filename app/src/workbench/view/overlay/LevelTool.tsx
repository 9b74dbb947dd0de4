import { turnForLine } from '@welkinar/core'
import { useState, type PointerEvent } from 'react'
import { useScene } from '../../../scene/sceneStore'
import { cropOf, setTurn } from '../../actions/cropping'
import type { ViewPort } from '../../onPhoto/viewPort'
import { pathThrough, pointerPlace, toPhoto, type Point } from '../../onPhoto/geometry'
import { GuideLine } from '../../onPhoto/Handle'
import { ToolHint } from '../../onPhoto/ToolHint'
import { useSource } from '../../../scene/openSceneContext'

/** A line shorter than this, css px, says nothing about a direction. */
const LEAST = 24

/** Draws a line along what ought to lie level, or to stand upright: the photo is turned for it. */
export function LevelTool({ port }: { readonly port: ViewPort }) {
  const source = useSource()
  const [line, setLine] = useState<readonly [Point, Point]>()
  const place = (event: PointerEvent<SVGSVGElement>): Point => toPhoto(port, pointerPlace(event, event.currentTarget))
  const onPointerUp = () => {
    if (!line) return
    const [from, to] = line
    setLine(undefined)
    if (Math.hypot(to.x - from.x, to.y - from.y) * port.zoom < LEAST) return
    setTurn(source, cropOf(source).turn + turnForLine(from, to))
    useScene.getState().set({ tool: undefined })
  }
  return (
    <>
      <svg
        width={port.width}
        height={port.height}
        data-testid="level line"
        style={{ position: 'absolute', inset: 0, touchAction: 'none', cursor: 'crosshair' }}
        onPointerDown={(event) => {
          if (event.button !== 0) return
          event.stopPropagation()
          event.currentTarget.setPointerCapture(event.pointerId)
          setLine([place(event), place(event)])
        }}
        onPointerMove={(event) => line && setLine([line[0], place(event)])}
        onPointerUp={onPointerUp}
        onPointerCancel={() => setLine(undefined)}
        onDoubleClick={(event) => event.stopPropagation()}
      >
        {line && <GuideLine d={pathThrough(port, line)} />}
      </svg>
      <ToolHint text="Draw along the horizon, or along a wall that stands upright." />
    </>
  )
}
