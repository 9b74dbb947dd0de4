import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import IconButton from '@mui/material/IconButton'
import { Star } from '@phosphor-icons/react/dist/csr/Star'
import { frameOfSource, framedGraph, type Scene } from '@welkinar/core'
import { memo, useMemo } from 'react'
import { ActionMenu, type Action } from '../common/ActionMenu'
import { NameInput } from '../common/NameInput'
import { useSeen } from '../common/useSeen'
import { ink } from '../theme'
import { LookPicture } from '../workbench/pictures/LookPicture'
import type { Laying } from '../workbench/actions/recipes'
import { sceneWith } from './sceneWith'
import type { ShownRecipe } from './shownRecipes'

/** What can be done with a recipe that is offered. */
export interface RecipeDeeds {
  /** Shows it large as long as it is pointed at; nothing ends that. */
  point(one: ShownRecipe | undefined): void
  choose(one: ShownRecipe): void
  lay(one: ShownRecipe): void
  like(one: ShownRecipe): void
  rename(one: ShownRecipe, name: string): void
  remove(one: ShownRecipe): void
  /** What is in its menu. */
  actions(one: ShownRecipe): readonly Action[]
}

interface RecipeCardProps {
  readonly one: ShownRecipe
  readonly scene: Scene
  readonly laying: Laying
  /** Ids of pictures that are not there. */
  readonly gone: readonly string[]
  readonly isChosen: boolean
  /** Css px. */
  readonly width: number
  readonly deeds: RecipeDeeds
}

/** A recipe, as a picture of what it would make of the photo. */
export const RecipeCard = memo(function RecipeCard({ one, scene, laying, gone, isChosen, width, deeds }: RecipeCardProps) {
  const { name, ownId, isFavourite } = one
  const [card, inSight] = useSeen()
  const frame = frameOfSource(scene)
  const height = Math.max(40, Math.min(Math.round(1.3 * width), Math.round((width * frame.height) / frame.width)))
  return (
    <Box component="li" ref={card} sx={{ minWidth: 0 }}>
      <ButtonBase
        data-recipe={one.key}
        aria-label={name}
        aria-pressed={isChosen}
        onPointerEnter={() => deeds.point(one)}
        onPointerLeave={() => deeds.point(undefined)}
        onFocus={() => deeds.point(one)}
        onBlur={() => deeds.point(undefined)}
        onClick={() => deeds.choose(one)}
        onDoubleClick={() => deeds.lay(one)}
        sx={{
          display: 'block',
          width,
          height,
          overflow: 'hidden',
          bgcolor: ink.stage,
          outline: isChosen ? `3px solid ${ink.accent}` : 'none',
          '&:focus-visible': { outline: `3px solid ${isChosen ? ink.accent : ink.ink}`, outlineOffset: isChosen ? 3 : 1 },
        }}
      >
        {inSight && <Picture {...{ one, scene, laying, gone, width, height }} />}
      </ButtonBase>
      <Box sx={{ display: 'flex', alignItems: 'center', minHeight: 30 }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          {ownId === undefined ? (
            <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{name}</Box>
          ) : (
            <NameInput
              label={`Name of ${name}`}
              name={name}
              longest={120}
              size={13}
              width={width - 60}
              onRename={(next) => deeds.rename(one, next)}
            />
          )}
        </Box>
        <IconButton
          size="small"
          aria-label={`Favourite: ${name}`}
          aria-pressed={isFavourite}
          onClick={() => deeds.like(one)}
          sx={{ p: '5px', color: isFavourite ? ink.accent : ink.secondary }}
        >
          <Star size={16} weight={isFavourite ? 'fill' : 'regular'} />
        </IconButton>
        <ActionMenu label={`More about ${name}`} actions={() => deeds.actions(one)} />
      </Box>
    </Box>
  )
})

interface PictureProps extends Pick<RecipeCardProps, 'one' | 'scene' | 'laying' | 'gone'> {
  readonly width: number
  readonly height: number
}

function Picture({ one, scene, laying, gone, width, height }: PictureProps) {
  const made = useMemo(() => sceneWith(scene, one, { laying, strength: 100 }, gone).scene, [scene, one, laying, gone])
  const node = useMemo(() => framedGraph(made), [made])
  return <LookPicture node={node} photo={made.photo} frame={frameOfSource(made)} {...{ width, height }} label="" awaited coarseFirst />
}
