import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import { sceneGraph, type GraphNode, type PictureSource, type StepName } from '@welkinar/core'
import { memo, useDeferredValue, useEffect, useRef, type ReactNode } from 'react'
import { useScene } from '../../scene/sceneStore'
import { ink, weight } from '../../theme'
import { hasSameLook, LookPicture } from '../pictures/LookPicture'
import { useSource } from '../../scene/openSceneContext'

interface StepSectionProps {
  /** The effect or group whose step it is. */
  readonly ownerId: string
  readonly step: StepName
  readonly number: number
  readonly title: string
  readonly summary: string
  /** Part of the photo's width that the small picture shows. */
  readonly part: number
  readonly children: ReactNode
}

/** One step of the selected effect: a live picture of its output, and its controls when it is open. */
export function StepSection({ ownerId, children, ...head }: StepSectionProps) {
  // The photo comes first: small pictures follow when there is time for them.
  const source = useDeferredValue(useSource())
  const { step, title } = head
  const open = useScene((state) => state.openStep === step)
  const section = useRef<HTMLElement>(null)
  useEffect(() => {
    if (open) section.current?.scrollIntoView({ block: 'start' })
  }, [open])
  return (
    <Box
      component="section"
      ref={section}
      aria-label={title}
      sx={{
        borderTop: `1px solid ${ink.rule}`,
        bgcolor: open ? ink.raised : 'transparent',
        boxShadow: open ? `inset 3px 0 0 ${ink.accent}` : 'none',
      }}
    >
      <StepHead {...head} node={sceneGraph(source, { kind: 'step', effectId: ownerId, step })} photo={source.photo} open={open} />
      {open && <Box sx={{ px: 4, pt: 1, pb: 4, display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>{children}</Box>}
    </Box>
  )
}

interface StepHeadProps extends Omit<StepSectionProps, 'ownerId' | 'children'> {
  readonly node: GraphNode
  readonly photo: PictureSource['photo']
  readonly open: boolean
}

/** What is seen of a step also while it is shut. */
const StepHead = memo(function StepHead({ node, photo, open, step, number, title, summary, part }: StepHeadProps) {
  return (
    <Box component="h3" sx={{ m: 0, fontSize: 'inherit', fontWeight: weight.plain }}>
      <ButtonBase
        aria-expanded={open}
        onClick={() => useScene.getState().set({ openStep: open ? undefined : step })}
        sx={{
          display: 'flex',
          width: '100%',
          gap: 3,
          px: 4,
          py: 2,
          justifyContent: 'flex-start',
          textAlign: 'left',
          '&:hover': { bgcolor: ink.raised },
          '&:focus-visible': { outlineOffset: -2 },
        }}
      >
        <LookPicture node={node} photo={photo} width={104} height={64} part={part} label={`Output of ${title}`} />
        <Box sx={{ minWidth: 0 }}>
          <Box sx={{ fontWeight: weight.strong }}>
            <Box component="span" sx={{ color: ink.secondary, mr: '5px' }}>
              {number}
            </Box>
            {title}
          </Box>
          <Box sx={{ color: ink.secondary, textWrap: 'pretty' }}>{summary}</Box>
        </Box>
      </ButtonBase>
    </Box>
  )
}, hasSameLook)
