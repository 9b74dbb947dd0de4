import type { EffectKind } from '@welkinar/core'
import { keepChoice, keptChoice } from '../../common/keptChoice'
import { offers } from './offers'

/** Where the kinds are kept that were added last. */
const NAME = 'welkinar last kinds'
const MOST = 4

/** The kinds that were added last in this browser, the newest first. */
export function lastKinds(): EffectKind[] {
  const names = (keptChoice(NAME) ?? '').split(' ')
  return names.flatMap((name) => offers.find(({ kind }) => kind === name)?.kind ?? []).slice(0, MOST)
}

/** Notes that an effect of a kind was added. */
export function noteKind(kind: EffectKind): void {
  keepChoice(NAME, [kind, ...lastKinds().filter((one) => one !== kind)].slice(0, MOST).join(' '))
}
