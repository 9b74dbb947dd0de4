import Box from '@mui/material/Box'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { nameOfEffect, sceneGraph, type Effect, type PictureSource } from '@welkinar/core'
import { useQuery } from '@tanstack/react-query'
import type { RenderPool } from '@welkinar/core/pool'
import { useState } from 'react'
import { select, useScene } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import type { ViewPort } from '../../onPhoto/viewPort'
import type { Point } from '../../onPhoto/geometry'
import { PlaceRing } from '../../onPhoto/PlaceRing'
import { usePool, useSource } from '../../../scene/openSceneContext'

interface EffectsHereProps {
  readonly port: ViewPort
}

interface Found {
  readonly effect: Effect
  /** How far the colour there is changed, of 255 codes. */
  readonly codes: number
}

/** Less than this is not seen, codes of 255. */
const LEAST_CODES = 0.5

/** The effects that change the place that is asked for. */
export function EffectsHere(props: EffectsHereProps) {
  const at = useScene(({ askedAt }) => askedAt)
  return at && <EffectsAt key={`${at.x} ${at.y}`} {...props} at={at} />
}

/** The effects that change one place of the photo, strongest first; choosing one selects it. */
function EffectsAt({ port, at }: EffectsHereProps & { readonly at: Point }) {
  const pool = usePool()
  const source = useSource()
  const [mark, setMark] = useState<HTMLElement | null>(null)
  const { data: found, error } = useQuery({
    queryKey: ['effects here', sceneGraph(source).key, at.x, at.y],
    queryFn: () => effectsAt(pool, source, at),
    retry: false,
  })
  const close = () => useScene.getState().set({ askedAt: undefined })
  const words = error ? 'This place could not be read.' : found ? 'No effect changes this place.' : 'Looking …'
  return (
    <>
      <PlaceRing ref={setMark} port={port} at={at} />
      {mark && (
        <Menu open anchorEl={mark} onClose={close} slotProps={{ list: { 'aria-label': 'Effects that change this place' } }}>
          {!found?.length && <MenuItem disabled>{words}</MenuItem>}
          {found?.map(({ effect, codes }) => (
            <MenuItem
              key={effect.id}
              onClick={() => {
                close()
                select(effect.id)
              }}
              sx={{ display: 'flex', gap: 4 }}
            >
              <Box sx={{ flex: 1 }}>{nameOfEffect(effect)}</Box>
              <Box sx={{ color: ink.secondary, fontVariantNumeric: 'tabular-nums' }}>{`by ${Math.round((100 * codes) / 255)} %`}</Box>
            </MenuItem>
          ))}
        </Menu>
      )}
    </>
  )
}

/** What each effect changes at a place: the picture with it against that beneath it. */
async function effectsAt(pool: RenderPool, source: PictureSource, { x, y }: Point): Promise<Found[]> {
  const seen = source.effects.filter(({ on }) => on)
  const all = await Promise.all(
    seen.map(async (effect) => {
      const looks = [
        { kind: 'beneath', effectId: effect.id },
        { kind: 'step', effectId: effect.id, step: 'mix' },
      ] as const
      const [before = [0, 0, 0], after = [0, 0, 0]] = await Promise.all(
        looks.map((look) => pool.colourAt(sceneGraph(source, look), source.photo, x, y)),
      )
      const codes = 255 * Math.max(...before.map((channel, k) => Math.abs(channel - (after[k] ?? 0))))
      return { effect, codes }
    }),
  )
  return all.filter(({ codes }) => codes >= LEAST_CODES).sort((a, b) => b.codes - a.codes)
}
