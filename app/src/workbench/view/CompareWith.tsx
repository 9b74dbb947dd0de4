import Button from '@mui/material/Button'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { CaretDown } from '@phosphor-icons/react/dist/csr/CaretDown'
import { picturesOfScene } from '@welkinar/core'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { ink } from '../../theme'
import { showProblem } from '../../common/notices'
import { useOpenScene } from '../../scene/openSceneContext'
import { useScene } from '../../scene/sceneStore'
import type { ComparedState } from '../../scene/viewState'
import { statesOf, type KeptState } from '../../storage/states'

/** What Split and Before show from now on: the picture as it is at this moment. Nothing of it is a step of the history. */
export function compareWithNow(): void {
  const { history, set } = useScene.getState()
  if (!history) return
  const time = new Date().toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' })
  set({ against: { name: `As it was at ${time}`, source: history.scene } })
}

/** Chooses what Split and Before compare with: the photo, the picture as it is now, a pinned state, or one that was kept. */
export function CompareWith() {
  const [anchor, setAnchor] = useState<HTMLElement>()
  const against = useScene((state) => state.against)
  const scene = useScene((state) => state.history?.scene)
  const { pictures } = useOpenScene()
  const isOpen = anchor !== undefined
  const states = useLiveQuery(() => (scene && isOpen ? statesOf(scene) : []), [scene?.id, isOpen]) ?? []
  const chooseKept = ({ name, scene: kept }: KeptState) =>
    pictures
      .holdPictures(picturesOfScene(kept))
      .then(() => choose({ name, source: kept }))
      .catch((error: unknown) => showProblem(error, 'Comparing with the state'))
  const choose = (state: ComparedState | undefined) => {
    useScene.getState().set({ against: state })
    setAnchor(undefined)
  }
  return (
    <>
      <Button
        variant="outlined"
        aria-haspopup="menu"
        title="What Split and Before show"
        onDoubleClick={(event) => event.stopPropagation()}
        endIcon={<CaretDown size={12} />}
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ position: 'absolute', left: 12, top: 12, bgcolor: ink.paper, '&:hover': { bgcolor: ink.raised } }}
      >
        Before: {against?.name ?? 'the photo'}
      </Button>
      {anchor && (
        <Menu open anchorEl={anchor} onClose={() => setAnchor(undefined)}>
          <MenuItem selected={!against} onClick={() => choose(undefined)}>
            The photo as it came
          </MenuItem>
          <MenuItem
            onClick={() => {
              compareWithNow()
              setAnchor(undefined)
            }}
          >
            The picture as it is now
          </MenuItem>
          {scene?.pinned.map((pinned) => (
            <MenuItem
              key={pinned.id}
              onClick={() =>
                choose({
                  name: pinned.name,
                  source: Object.freeze({ ...scene, effects: pinned.effects, groups: pinned.groups, shared: pinned.shared }),
                })
              }
            >
              {pinned.name}
            </MenuItem>
          ))}
          {states.map((state) => (
            <MenuItem key={state.id} onClick={() => void chooseKept(state)}>
              {state.name}
            </MenuItem>
          ))}
        </Menu>
      )}
    </>
  )
}
