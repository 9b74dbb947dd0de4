import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { frameOfSource, picturesOfStack, type Scene } from '@welkinar/core'
import { useCallback, useDeferredValue, useEffect, useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { NARROW } from '../common/useNarrow'
import { useKeys } from '../keys/listener'
import { useOpenScene } from '../scene/openSceneContext'
import { SceneBar } from '../scene/SceneBar'
import { useScene } from '../scene/sceneStore'
import { zoomCommands } from '../scene/zoomCommands'
import { showProblem } from '../common/notices'
import { asItIs, layOnOpenScene, type LayingChoice } from '../workbench/actions/recipes'
import { ScenePane } from '../workbench/view/ScenePane'
import { deedsOfRecipes } from './deeds'
import { LayingRow } from './LayingRow'
import { MakeRecipe } from './MakeRecipe'
import { exportRecipes, importRecipes } from './recipeFiles'
import { sceneWith } from './sceneWith'
import { RecipeList } from './RecipeList'
import { useRecipes, type ShownRecipe } from './shownRecipes'
import { TagsDialog } from './TagsDialog'

/** The screen where recipes are seen on the open photo, laid on it, made, kept and exchanged. */
export function RecipesPage() {
  const scene = useScene(({ history }) => history?.scene)
  return scene ? <Recipes scene={scene} /> : null
}

function Recipes({ scene }: { readonly scene: Scene }) {
  const navigate = useNavigate()
  const frame = frameOfSource(scene)
  const all = useRecipes(scene, frame)
  const [pointed, point] = useState<ShownRecipe>()
  const [chosenKey, setChosenKey] = useState<string>()
  const [tagged, setTagged] = useState<ShownRecipe>()
  const [making, setMaking] = useState(false)
  const [choice, setChoice] = useState<LayingChoice>(asItIs)
  const gone = useGone(all)
  const lay = useCallback(
    (one: ShownRecipe) => {
      layOnOpenScene(one.recipe(), choice)
        .then((isLaid) => isLaid && void navigate(`/scene/${scene.id}`))
        .catch((error: unknown) => showProblem(error, 'Laying the recipe'))
    },
    [choice, navigate, scene.id],
  )
  const deeds = useMemo(
    () =>
      deedsOfRecipes({
        point,
        choose: ({ key }) => setChosenKey(key),
        lay,
        layOnMany: ({ key }) => void navigate(`/batch?recipe=${encodeURIComponent(key)}`),
        retag: setTagged,
      }),
    [lay, navigate],
  )
  const chosen = all?.find(({ key }) => key === chosenKey)
  const seen = useDeferredValue(pointed ?? chosen)
  const shown = useMemo(() => {
    return seen && sceneWith(scene, seen, choice, gone)
  }, [scene, seen, choice, gone])
  useKeys([...zoomCommands, { id: 'tool-off', run: () => setChosenKey(undefined) }])
  const own = (all ?? []).filter(({ ownId }) => ownId !== undefined)
  return (
    <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column' }}>
      <SceneBar sceneId={scene.id} title="Recipes" about={scene.name}>
        <Button variant="outlined" onClick={() => importRecipes(([first]) => first !== undefined && setChosenKey(`own ${first}`))}>
          Open files
        </Button>
        <Button
          variant="outlined"
          disabled={own.length === 0}
          onClick={() =>
            exportRecipes(
              own.map(({ recipe }) => recipe()),
              'Recipes',
            )
          }
        >
          Save your own
        </Button>
        <Button variant="contained" disabled={scene.effects.length === 0} onClick={() => setMaking(true)}>
          Make a recipe of this picture
        </Button>
      </SceneBar>
      <Box sx={{ flex: 1, minHeight: 0, display: 'flex', [NARROW]: { flexDirection: 'column' } }}>
        <Box component="main" sx={{ flex: 1, minWidth: 0, minHeight: 0, display: 'grid', gridTemplateRows: 'minmax(0, 1fr)' }}>
          <ScenePane scene={shown?.scene ?? scene} words={seen?.name ?? 'The picture as it is'}>
            <LayingRow
              choice={choice}
              onChange={setChoice}
              said={shown?.said ?? []}
              onLay={chosen && (() => lay(chosen))}
              isEmpty={scene.effects.length === 0}
            />
          </ScenePane>
        </Box>
        {all && <RecipeList {...{ scene, all, gone, deeds }} chosen={chosenKey} laying={choice.laying} />}
      </Box>
      {tagged && <TagsDialog one={tagged} onClose={() => setTagged(undefined)} />}
      {making && <MakeRecipe scene={scene} onClose={() => setMaking(false)} onMade={(id) => setChosenKey(`own ${id}`)} />}
    </Box>
  )
}

const none: readonly string[] = []

/** The pictures that recipes read and this browser does not have; the others are held in the threads meanwhile. */
function useGone(all: readonly ShownRecipe[] | undefined): readonly string[] {
  const { pictures } = useOpenScene()
  const [gone, setGone] = useState(none)
  // No built-in recipe reads any.
  const read = useMemo(() => (all ?? []).flatMap(({ ownId, recipe }) => (ownId === undefined ? [] : picturesOfStack(recipe()))), [all])
  const names = read.map(({ id }) => id).join()
  useEffect(() => {
    let isOver = false
    if (read.length > 0) void pictures.holdPictures(read).then((found) => !isOver && setGone(found.length > 0 ? found : none))
    return () => void (isOver = true)
  }, [pictures, names]) // eslint-disable-line react-hooks/exhaustive-deps -- the names stand for what is read
  return gone
}
