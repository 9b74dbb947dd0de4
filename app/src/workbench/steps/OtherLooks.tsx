import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Popover from '@mui/material/Popover'
import { definitionOf, framedGraph, frameOfSource, lookOf, looksOf, type Effect, type Scene } from '@welkinar/core'
import { useEffect, useMemo, useState } from 'react'
import { useSource } from '../../scene/openSceneContext'
import { useReadOnly, useScene } from '../../scene/sceneStore'
import { withLook } from '../actions/exchangeLook'
import { LEAST_PART, LookButton } from '../pictures/LookButton'

/** The looks of the kind of an effect, to put in the place of its own. */
export function OtherLooks({ effect }: { readonly effect: Effect }) {
  const [anchor, setAnchor] = useState<HTMLElement>()
  const readOnly = useReadOnly()
  const looks = looksOf(definitionOf(effect.kind))
  if (looks.length < 2) return null
  return (
    <>
      <Button
        variant="text"
        aria-haspopup="dialog"
        disabled={readOnly !== undefined}
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ flex: 'none', px: '6px', my: '-6px' }}
      >
        Looks
      </Button>
      {anchor && (
        <Popover
          open
          anchorEl={anchor}
          onClose={() => setAnchor(undefined)}
          anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
          transformOrigin={{ vertical: 'top', horizontal: 'right' }}
          slotProps={{ paper: { role: 'dialog', 'aria-label': `Looks of ${definitionOf(effect.kind).label}` } }}
        >
          <Looks effect={effect} onDone={() => setAnchor(undefined)} />
        </Popover>
      )}
    </>
  )
}

function Looks({ effect, onDone }: { readonly effect: Effect; readonly onDone: () => void }) {
  const source = useSource()
  const { kind, id } = effect
  const { shownPart } = definitionOf(kind)
  const worn = lookOf(effect).id
  // What is tried is gone with the list, however it is left.
  useEffect(() => () => useScene.getState().try(undefined), [])
  const looks = useMemo(
    () =>
      looksOf(definitionOf(kind)).map((look) => {
        const next = withLook(effect, look.id, source)
        const effects = source.effects.map((one) => (one.id === id ? next : one))
        return { look, next, node: framedGraph({ ...source, effects }) }
      }),
    [source, effect, kind, id],
  )
  const change = (next: Effect) => (scene: Scene) => {
    const at = scene.effects.findIndex((one) => one.id === id)
    if (at >= 0) scene.effects[at] = structuredClone(next)
  }
  return (
    <Box
      onMouseLeave={() => useScene.getState().try(undefined)}
      sx={{ display: 'grid', gridTemplateColumns: '138px 138px', gap: 3, p: 3, maxHeight: 'min(520px, 70vh)', overflowY: 'auto' }}
    >
      {looks.map(({ look, next, node }) => (
        <LookButton
          key={look.id}
          name={look.name}
          node={node}
          photo={source.photo}
          frame={frameOfSource(source)}
          part={Math.max(LEAST_PART, shownPart)}
          chosen={look.id === worn}
          onTry={() => useScene.getState().try(change(next))}
          onTake={() => {
            useScene.getState().change(`Look: ${look.name}`, change(next))
            onDone()
          }}
        />
      ))}
    </Box>
  )
}
