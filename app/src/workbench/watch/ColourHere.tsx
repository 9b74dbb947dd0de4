import Box from '@mui/material/Box'
import { encodedOf, lightnessOf, linearIn, sceneGraph, workingSpaceOf, type Rgb } from '@welkinar/core'
import { useEffect, useMemo, useState } from 'react'
import { useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { usePool, useSource } from '../../scene/openSceneContext'

/** The colour of the picture under the pointer, and beside it that of the photo. */
export function ColourHere() {
  const pool = usePool()
  const source = useSource()
  const at = useScene((state) => state.pointerAt)
  const [picture, photo] = useMemo(() => [sceneGraph(source), sceneGraph(source, { kind: 'photo' })] as const, [source])
  const [read, setRead] = useState<{ readonly at: typeof at; readonly colours: readonly [Rgb, Rgb] }>()
  useEffect(() => {
    if (!at) return
    // Of the places that a hand passes only the last is worth an answer.
    const abort = new AbortController()
    Promise.all([picture, photo].map((node) => pool.colourAt(node, source.photo, at.x, at.y, abort.signal)))
      .then(([after, before]) => !abort.signal.aborted && after && before && setRead({ at, colours: [after, before] }))
      .catch(() => undefined)
    return () => abort.abort()
  }, [pool, source.photo, picture, photo, at])
  // Until a place is read the last one stays; nothing beside the photo.
  const working = workingSpaceOf(source.photo.id)
  // In linear light; beyond 0 to 1 is what sRGB does not have.
  const [after, before] = ((at && read?.colours) ?? []).map((colour) => linearIn(colour, working, 'srgb'))
  const rows: readonly (readonly [string, string])[] = after
    ? [
        ['sRGB', after.map((value) => Math.round(255 * encodedOf(Math.min(1, Math.max(0, value))))).join('  ')],
        ['Linear', after.map((value) => value.toFixed(3)).join('  ')],
        ['L*', `${lightnessOf(after).toFixed(1)}${before ? ` from ${lightnessOf(before).toFixed(1)}` : ''}`],
      ]
    : [
        ['sRGB', '–'],
        ['Linear', '–'],
        ['L*', '–'],
      ]
  return (
    <Box component="section" aria-label="Colour under the pointer" sx={{ display: 'flex', gap: 2 }}>
      <Box sx={{ width: 34, flex: 'none', display: 'grid', gridTemplateRows: '2fr 1fr', border: `1px solid ${ink.rule}` }}>
        <Box sx={{ bgcolor: after ? swatch(after) : 'transparent' }} />
        <Box sx={{ bgcolor: before ? swatch(before) : 'transparent' }} />
      </Box>
      <Box
        component="dl"
        sx={{ m: 0, flex: 1, display: 'grid', gridTemplateColumns: '42px 1fr', rowGap: '1px', fontSize: 12, whiteSpace: 'nowrap' }}
      >
        {rows.map(([name, value]) => [
          <Box component="dt" key={name} sx={{ color: ink.secondary }}>
            {name}
          </Box>,
          <Box component="dd" key={`${name} value`} sx={{ m: 0, whiteSpace: 'pre' }}>
            {value}
          </Box>,
        ])}
      </Box>
    </Box>
  )
}

/** A colour as the screen shows it (CSS Color Module Level 4, `color()`), in linear light. */
function swatch(linear: Rgb): string {
  return `color(srgb-linear ${linear.join(' ')})`
}
