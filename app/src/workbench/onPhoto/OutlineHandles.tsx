import type { OutlineCorner } from '@welkinar/core'
import type { MouseEvent } from 'react'
import type { ViewPort } from './viewPort'
import { limited, pathThrough, pointerPlace, toPhoto, type Point } from './geometry'
import { GuideLine, Handle } from './Handle'
import { nearestSide, outlinePath, plainCorner } from './outlinePath'

interface OutlineHandlesProps {
  readonly port: ViewPort
  readonly corners: readonly OutlineCorner[]
  readonly name: string
  /** Whether it goes back to its first corner; true if not given. */
  readonly closed?: boolean
  onEdit(label: string, change: (corners: OutlineCorner[]) => void, gesture?: string): void
}

/** Corners and curve handles of one outline. A double tap puts a corner into a side or takes one out. */
export function OutlineHandles({ port, corners, name, closed = true, onEdit }: OutlineHandlesProps) {
  return (
    <g>
      <path
        d={outlinePath(port, corners, closed)}
        fill="none"
        stroke="transparent"
        strokeWidth={16}
        pointerEvents="stroke"
        style={{ cursor: 'copy' }}
        onDoubleClick={(event: MouseEvent<SVGPathElement>) => {
          event.stopPropagation()
          const svg = event.currentTarget.ownerSVGElement
          if (!svg) return
          const { side, place } = nearestSide(corners, toPhoto(port, pointerPlace(event, svg)))
          onEdit('Add a corner', (all) => void all.splice(side + 1, 0, plainCorner(limited(place))))
        }}
      />
      <GuideLine d={outlinePath(port, corners, closed)} />
      {corners.map((corner, index) => (
        <CornerHandles
          key={index}
          port={port}
          corner={corner}
          label={`Corner ${index + 1} of ${name}`}
          onChange={(part, gesture) => onEdit('Move a corner', (all) => void Object.assign(all[index] ?? {}, part), gesture)}
          onRemove={() => onEdit('Remove a corner', (all) => void all.splice(index, 1))}
        />
      ))}
    </g>
  )
}

interface CornerHandlesProps {
  readonly port: ViewPort
  readonly corner: OutlineCorner
  readonly label: string
  onChange(part: Partial<OutlineCorner>, gesture?: string): void
  onRemove(): void
}

function CornerHandles({ port, corner, label, onChange, onRemove }: CornerHandlesProps) {
  const [into, out] = [
    { x: corner.x + corner.inX, y: corner.y + corner.inY },
    { x: corner.x + corner.outX, y: corner.y + corner.outY },
  ]
  const curved = corner.inX !== 0 || corner.inY !== 0 || corner.outX !== 0 || corner.outY !== 0
  const offset = ({ x, y }: Point) => ({ x: x - corner.x, y: y - corner.y })
  return (
    <>
      {curved && (
        <>
          <GuideLine d={pathThrough(port, [into, corner, out])} />
          <Handle
            port={port}
            at={into}
            look="curve"
            label={`Curve into ${label}`}
            onMove={(to, gesture) => onChange({ inX: offset(to).x, inY: offset(to).y }, gesture)}
          />
          <Handle
            port={port}
            at={out}
            look="curve"
            label={`Curve out of ${label}`}
            onMove={(to, gesture) => onChange({ outX: offset(to).x, outY: offset(to).y }, gesture)}
          />
        </>
      )}
      <Handle
        port={port}
        at={corner}
        look="side"
        label={label}
        onMove={(to, gesture) => onChange(to, gesture)}
        onDoubleClick={onRemove}
        onRemove={onRemove}
      />
    </>
  )
}
