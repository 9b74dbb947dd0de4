import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import type { GraphNode, PictureSource, Rect } from '@welkinar/core'
import { ink } from '../../theme'
import { LookPicture } from './LookPicture'

/** Two beside one another are as wide as a panel lets them be. */
const PICTURE = { width: 138, height: 92 }

/** A whole photo is small here: of specks a part is shown, but enough to see what photo it is. */
export const LEAST_PART = 0.35

interface LookButtonProps {
  readonly name: string
  /** Beneath the name. */
  readonly kind?: string | undefined
  readonly node: GraphNode
  readonly photo: PictureSource['photo']
  readonly frame?: Rect
  /** Part of the frame's width that is shown. */
  readonly part: number
  /** Whether it is the one that is worn now. */
  readonly chosen?: boolean
  /** What pointing at it shows in the view. */
  onTry(): void
  onTake(): void
}

/** A look as a picture: pointing tries it, a press takes it. */
export function LookButton({ name, kind, node, photo, frame, part, chosen = false, onTry, onTake }: LookButtonProps) {
  return (
    <ButtonBase
      aria-label={name}
      aria-current={chosen || undefined}
      onClick={onTake}
      onMouseEnter={onTry}
      onFocus={onTry}
      sx={{
        display: 'block',
        textAlign: 'left',
        '& canvas': { width: '100%', height: 'auto' },
        ...(chosen && { boxShadow: `0 2px 0 ${ink.accent}` }),
        '&:hover, &:focus-visible': { outline: `2px solid ${ink.accent}`, outlineOffset: 2 },
      }}
    >
      <LookPicture
        node={node}
        photo={photo}
        {...(frame && { frame })}
        width={PICTURE.width}
        height={PICTURE.height}
        part={part}
        label=""
        awaited
      />
      <Box sx={{ pt: '3px', lineHeight: 1.25 }}>
        {name}
        {kind && <Box sx={{ color: ink.secondary }}>{kind}</Box>}
      </Box>
    </ButtonBase>
  )
}
