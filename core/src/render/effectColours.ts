import type { Rgb } from '../colour/hex'
import type { GraphNode } from '../graph/node'
import type { Balance } from '../model/look'
import { balanceNode, type Shift } from '../operations/colour/balance/balance'
import { constantTonesNode } from '../operations/sources/constantTones/constantTones'
import { lightColoursNode } from '../operations/light/lightOfTones/lightOfTones'
import { litColoursNode } from '../operations/light/litColours/litColours'
import { mixNode } from '../operations/mixing/mix/mix'
import type { AirLight } from '../operations/light/sceneLight/airLight'
import { sceneLightNode, tintInLightNode } from '../operations/light/sceneLight/sceneLight'

/** How much of the light's colour a wholly lit pattern takes. */
const LIGHT_TINT = 0.7

/** Colours in the light of the scene. @param lit 0-100; @param own colours that differ from place to place, if there are any beside the one */
export function inSceneLight(air: AirLight, lit: number, colour: Rgb, own: GraphNode | undefined): GraphNode | undefined {
  if (lit === 0) return own
  const part = (LIGHT_TINT * lit) / 100
  return own ? litColoursNode(own, sceneLightNode(air), part) : tintInLightNode({ air, colour, part })
}

/** Colours balanced by how bright the pattern is: its shadows are its faint parts. */
export function balancedColours(field: GraphNode, balance: Balance, colour: Rgb, own: GraphNode | undefined): GraphNode {
  const shift = ({ red, green, blue }: Balance['shadows']): Shift => [red / 100, green / 100, blue / 100]
  const light = mixNode(constantTonesNode([0, 0, 0]), field, undefined, { mode: 'normal', amount: 1, linear: false, colour }, own)
  const { shadows, midtones, highlights, keepLuminosity } = balance
  return lightColoursNode(
    balanceNode(light, { shadows: shift(shadows), midtones: shift(midtones), highlights: shift(highlights), keepLuminosity }),
  )
}
