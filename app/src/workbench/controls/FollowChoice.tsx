import { FOCAL_POINT, markedPoint, noMarks, readWord, writePath, type Effect } from '@welkinar/core'
import { Choice } from '../../common/Choice'
import { changeEffect, useScene } from '../../scene/sceneStore'

const OWN = 'own'

interface FollowChoiceProps {
  readonly effect: Effect
  /** Path into the controls of what is followed. */
  readonly path: string
}

/** What the origin of an effect follows: a light of the scene, the focal point, or nothing. */
export function FollowChoice({ effect, path }: FollowChoiceProps) {
  const marks = useScene(({ history }) => history?.scene.marks) ?? noMarks
  const wanted = readWord(effect.controls, path) || null
  const followed =
    wanted !== null && markedPoint(marks, wanted) ? (marks.lights.find(({ id }) => id === wanted) ?? marks.lights[0]) : undefined
  const value = wanted === FOCAL_POINT && marks.focal ? FOCAL_POINT : (followed?.id ?? OWN)
  const options = [
    [OWN, 'A place of its own'] as const,
    ...marks.lights.map(({ id, name }) => [id, `Follows ${name}`] as const),
    ...(marks.focal ? [[FOCAL_POINT, 'Follows the centre of interest'] as const] : []),
  ]
  return (
    <Choice
      label="Origin"
      value={value}
      options={options}
      onChange={(next) =>
        changeEffect(effect.id, 'What the origin follows', ({ controls }) => writePath(controls, path, next === OWN ? null : next))
      }
    />
  )
}
