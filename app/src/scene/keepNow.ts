import type { Scene } from '@welkinar/core'
import { showNotice, showProblem } from '../common/notices'
import { keepState } from '../storage/states'

/** Keeps a scene as it is now among its states. @param seeAll shows all that were kept */
export function keepNow(scene: Scene, seeAll?: () => void): void {
  keepState(scene, undefined, Date.now())
    .then((name) => showNotice(`The picture as it is now was kept as “${name}”.`, seeAll && { label: 'See what was kept', run: seeAll }))
    .catch((error: unknown) => showProblem(error, 'Keeping the picture'))
}
