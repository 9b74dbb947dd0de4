import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import InputBase from '@mui/material/InputBase'
import type { Scene } from '@welkinar/core'
import { useDeferredValue, useMemo, useRef, useState, type KeyboardEvent } from 'react'
import { useScreenSize } from '../common/useScreenSize'
import { NARROW } from '../common/useNarrow'
import { ink } from '../theme'
import type { Laying } from '../workbench/actions/recipes'
import { RecipeCard, type RecipeDeeds } from './RecipeCard'
import { found, shelves, type RecipeShelf, type ShownRecipe } from './shownRecipes'

interface RecipeListProps {
  readonly scene: Scene
  readonly all: readonly ShownRecipe[]
  readonly chosen: string | undefined
  readonly laying: Laying
  /** Ids of pictures that are not there. */
  readonly gone: readonly string[]
  readonly deeds: RecipeDeeds
}

/** Css px. */
const WIDTH = 476
const LEAST_CARD = 190
const GAP = 12
const PADDING = 16
const none: readonly ShownRecipe[] = []

/** The recipes, found by words and by what they are about. Arrow keys go through them. */
export function RecipeList({ scene, all, chosen, laying, gone, deeds }: RecipeListProps) {
  const [text, setText] = useState('')
  const [shelf, setShelf] = useState<RecipeShelf>('All')
  const place = useRef<HTMLDivElement>(null)
  const room = useScreenSize(place)
  const shown = useMemo(() => found(all, shelf, text), [all, shelf, text])
  // The page answers while they are set out.
  const setOut = useDeferredValue(shown, none)
  const inner = (room?.width ?? 0) - 2 * PADDING
  const across = Math.max(1, Math.floor((inner + GAP) / (LEAST_CARD + GAP)))
  const width = Math.floor((inner - (across - 1) * GAP) / across)
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: across, ArrowUp: -across }[event.key]
    const cards = [...(place.current?.querySelectorAll<HTMLElement>('[data-recipe]') ?? [])]
    const at = cards.indexOf(event.target as HTMLElement)
    if (!by || at < 0 || event.ctrlKey || event.metaKey || event.altKey) return
    cards[Math.min(cards.length - 1, Math.max(0, at + by))]?.focus()
    event.preventDefault()
    event.stopPropagation()
  }
  return (
    <Box
      component="aside"
      aria-label="Recipes"
      sx={{
        width: WIDTH,
        flex: 'none',
        display: 'flex',
        flexDirection: 'column',
        minHeight: 0,
        borderLeft: `1px solid ${ink.rule}`,
        bgcolor: ink.paper,
        [NARROW]: { width: '100%', flex: '1 1 50%' },
      }}
    >
      <Box sx={{ p: 4, pb: 3, display: 'grid', gap: 3, borderBottom: `1px solid ${ink.rule}` }}>
        <InputBase
          value={text}
          onChange={(event) => setText(event.target.value)}
          placeholder="Find: rain, warm, night …"
          inputProps={{ 'aria-label': 'Find a recipe', type: 'search', maxLength: 200 }}
          sx={{ bgcolor: ink.white, border: `1px solid ${ink.rule}`, px: 3 }}
        />
        <Box role="group" aria-label="Which recipes" sx={{ display: 'flex', flexWrap: 'wrap', gap: '4px' }}>
          {shelves.map((one) => (
            <Button
              key={one}
              size="small"
              variant={one === shelf ? 'contained' : 'outlined'}
              aria-pressed={one === shelf}
              onClick={() => setShelf(one)}
              sx={{ px: '6px', minWidth: 0 }}
            >
              {one}
            </Button>
          ))}
        </Box>
      </Box>
      <Box ref={place} sx={{ flex: 1, minHeight: 0, overflowY: 'auto' }}>
        {room && (
          <Box
            component="ul"
            aria-label="Recipes, as they are on this photo"
            onKeyDown={onKeyDown}
            sx={{
              listStyle: 'none',
              m: 0,
              p: `${PADDING}px`,
              display: 'grid',
              gridTemplateColumns: `repeat(${across}, ${width}px)`,
              gap: `${GAP}px`,
            }}
          >
            {setOut.map((one) => (
              <RecipeCard
                key={one.key}
                {...{ one, scene, laying, gone, width, deeds }}

                isChosen={one.key === chosen}
              />
            ))}
          </Box>
        )}
        {shown.length === 0 && (
          <Box sx={{ px: 4, color: ink.secondary }}>
            {shelf === 'Own' && text === ''
              ? 'You have no recipe of your own yet: make one of this picture, above.'
              : shelf === 'Favourites' && text === ''
                ? 'Nothing is here yet: press the star of a recipe that you like.'
                : 'Nothing found.'}
          </Box>
        )}
      </Box>
    </Box>
  )
}
