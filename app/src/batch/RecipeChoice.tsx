import { builtInRecipes } from '@welkinar/core/recipes'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { X } from '@phosphor-icons/react/dist/csr/X'
import { useLiveQuery } from 'dexie-react-hooks'
import { useMemo, useState } from 'react'
import { ownRecipes } from '../storage/recipes'
import type { StoredRun } from '../storage/database'
import { ink, weight } from '../theme'

/** A recipe that can be laid on many photos. */
export interface RecipeOffer {
  /** As the page of recipes calls it. */
  readonly key: string
  readonly name: string
  readonly given: StoredRun['recipes'][number]
}

const builtIn: readonly RecipeOffer[] = builtInRecipes.map(({ id, name }) => ({ key: `built-in ${id}`, name, given: { builtIn: id } }))

/** All recipes, own ones first. */
export function useRecipeOffers(): readonly RecipeOffer[] {
  const own = useLiveQuery(ownRecipes)
  return useMemo(
    () => [...(own ?? []).map(({ id, recipe }) => ({ key: `own ${id}`, name: recipe.name, given: { document: recipe } })), ...builtIn],
    [own],
  )
}

interface RecipeChoiceProps {
  readonly offers: readonly RecipeOffer[]
  readonly chosen: readonly string[]
  onChange(chosen: readonly string[]): void
}

/** The recipes of a run; each photo gets each of them. */
export function RecipeChoice({ offers, chosen, onChange }: RecipeChoiceProps) {
  const [anchor, setAnchor] = useState<HTMLElement>()
  const shown = chosen.flatMap((key) => offers.find((one) => one.key === key) ?? [])
  return (
    <Box component="section" aria-labelledby="run-recipes" sx={{ display: 'grid', gap: 2 }}>
      <Box component="h2" id="run-recipes" sx={{ m: 0, fontSize: 13, fontWeight: weight.strong }}>
        Recipes
      </Box>
      {shown.map(({ key, name }) => (
        <Box key={key} sx={{ display: 'flex', alignItems: 'center', bgcolor: ink.raised, px: 3, minHeight: 32 }}>
          <Box sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{name}</Box>
          <IconButton
            size="small"
            aria-label={`Without ${name}`}
            onClick={() => onChange(chosen.filter((one) => one !== key))}
            sx={{ p: '5px', color: ink.ink }}
          >
            <X size={14} />
          </IconButton>
        </Box>
      ))}
      <Button variant="outlined" aria-haspopup="menu" onClick={(event) => setAnchor(event.currentTarget)} sx={{ justifySelf: 'start' }}>
        {shown.length === 0 ? 'Choose a recipe' : 'Add a recipe'}
      </Button>
      {anchor && (
        <Menu open anchorEl={anchor} onClose={() => setAnchor(undefined)} slotProps={{ paper: { sx: { maxHeight: 420 } } }}>
          {offers
            .filter(({ key }) => !chosen.includes(key))
            .map(({ key, name }) => (
              <MenuItem
                key={key}
                onClick={() => {
                  onChange([...chosen, key])
                  setAnchor(undefined)
                }}
              >
                {name}
              </MenuItem>
            ))}
        </Menu>
      )}
    </Box>
  )
}
