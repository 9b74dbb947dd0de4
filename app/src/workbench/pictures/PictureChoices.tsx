import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import type { GraphNode, PictureSource, Rect } from '@welkinar/core'
import { useRef, type KeyboardEvent } from 'react'
import type { SceneChange } from '../../scene/history'
import { useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { LookPicture } from './LookPicture'

/** One of several things to choose from, as a small picture. */
interface PictureChoice {
  /** Differs from that of the others. */
  readonly words: string
  /** What its picture shows. */
  readonly node: GraphNode
  /** What it would change. */
  readonly change: SceneChange
  choose(): void
}

interface PictureChoicesProps {
  readonly photo: PictureSource['photo']
  /** What is shown of the photo; all of it without it. */
  readonly frame?: Rect
  readonly label: string
  readonly choices: readonly PictureChoice[]
  readonly columns: number
  /** Which of them is in use; -1 for none. */
  readonly chosen: number
  /** Size of a picture, css px. */
  readonly width: number
  readonly height: number
  /** Whether the words stand under the pictures. */
  readonly captions?: boolean
}

/** Small pictures to choose from. The large one follows the picture that is pointed at, or stepped to by arrow keys. */
export function PictureChoices({ photo, frame, label, choices, columns, chosen, width, height, captions }: PictureChoicesProps) {
  const grid = useRef<HTMLDivElement>(null)
  const tryOut = (change: SceneChange | undefined) => useScene.getState().try(change)
  const onKeyDown = (event: KeyboardEvent, index: number) => {
    const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: columns, ArrowUp: -columns }[event.key]
    if (!by) return
    event.preventDefault()
    event.stopPropagation()
    grid.current?.querySelectorAll('button')[Math.min(choices.length - 1, Math.max(0, index + by))]?.focus()
  }
  return (
    <Box
      ref={grid}
      role="group"
      aria-label={`${label}; arrow keys step through them`}
      onMouseLeave={() => tryOut(undefined)}
      onBlur={() => tryOut(undefined)}
      sx={{ display: 'grid', gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`, gap: captions ? '8px' : '3px' }}
    >
      {choices.map(({ words, node, change, choose }, index) => (
        <ButtonBase
          key={words}
          aria-label={words}
          aria-pressed={index === chosen}
          tabIndex={index === Math.max(0, chosen) ? 0 : -1}
          onFocus={() => tryOut(change)}
          onMouseEnter={() => tryOut(change)}
          onKeyDown={(event) => onKeyDown(event, index)}
          onClick={choose}
          sx={{ display: 'block', textAlign: 'left', outline: index === chosen ? `2px solid ${ink.accent}` : 'none', outlineOffset: 1 }}
        >
          <LookPicture node={node} photo={photo} {...(frame && { frame })} width={width} height={height} label="" />
          {captions && (
            <Box sx={{ mt: '2px', overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap', color: ink.secondary }} title={words}>
              {words}
            </Box>
          )}
        </ButtonBase>
      ))}
    </Box>
  )
}
