import type { GraphNode } from '../../../graph/node'
import { steady } from '../../../graph/steady'
import { angleControl, numberControl, percentControl } from '../../../model/controls'
import { forkNode } from '../../../operations/fields/fork/fork'
import { joinFieldsNode } from '../../../operations/fields/joinFields/joinFields'
import { lineAtHalfNode } from '../../../operations/fields/lineAtHalf/lineAtHalf'
import { invertedNode } from '../../../operations/masks/combineMasks/combineMasks'
import { ellipseMaskNode } from '../../../operations/masks/shapeMasks/ellipseMask'
import { lineMaskNode } from '../../../operations/masks/shapeMasks/lineMask'
import type { Size } from '../../../planes/grid'
import { operation, radius, level } from './fieldOperation'

// Where a field ends, and what follows the line along which it is a half.

/** Whole until `from` and nothing from `to` on, along a direction: 0 % where the photo begins and 100 % where it ends. */
function fadesBetween(turn: number, from: number, to: number, { width, height }: Size): GraphNode {
  const [dx, dy] = [Math.cos((turn * Math.PI) / 180), -Math.sin((turn * Math.PI) / 180)]
  const half = (Math.abs(dx) * width + Math.abs(dy) * height) / 2
  const at = (percent: number): [number, number] => {
    const way = half * (percent / 50 - 1)
    return [steady(width / 2 + dx * way), steady(height / 2 + dy * way)]
  }
  const [[x, y], [toX, toY]] = [at(from), at(to)]
  return lineMaskNode({ x, y, toX, toY })
}

export const fade = operation(
  'fade',
  'Fade along a line',
  { turn: angleControl('Direction'), from: level('Full until'), to: level('Gone at') },
  { turn: 90, from: 30, to: 90 },
  (field, { turn, from, to }, { width, height }) => {
    const mask = fadesBetween(turn, Math.min(from, to), Math.max(from, to), { width, height })
    return joinFieldsNode([field, from <= to ? mask : invertedNode(mask)], 'product')
  },
)
export const round = operation(
  'round',
  'Fade from the centre',
  { radius: radius('Radius', [20, 3000]), softness: percentControl('Fall-off') },
  { radius: 900, softness: 100 },
  (field, { radius: reach, softness }, { x, y }) =>
    joinFieldsNode(
      [field, ellipseMaskNode({ x, y, radiusX: Math.max(0.5, reach), radiusY: Math.max(0.5, reach), turn: 0, softness: softness / 100 })],
      'product',
    ),
)
export const fork = operation(
  'fork',
  'Fork',
  {
    from: level('Parts at'),
    to: level('Gone at'),
    aside: numberControl({
      label: 'Aside',
      unit: '%',
      usual: [-30, 30],
      hard: [-200, 200],
      step: 0.5,
      hint: 'Of the field: how far from 50 % the arm is gone.',
    }),
    width: numberControl({ label: 'Width', unit: '%', usual: [0, 100], hard: [0, 400], step: 1, hint: 'Of the arm where it begins.' }),
  },
  { from: 30, to: 70, aside: 10, width: 60 },
  (field, { from, to, aside, width }, size) =>
    // Downwards, as a bolt or a twig grows.
    forkNode(field, fadesBetween(-90, Math.min(from, to), Math.max(from, to), size), { aside: aside / 100, width: width / 100 }),
)
export const line = operation(
  'line',
  'Line at 50 %',
  {
    width: numberControl({
      label: 'Width',
      unit: '%',
      usual: [0.02, 5],
      hard: [0.001, 100],
      step: 0.02,
      hint: 'How much of the field it covers; thin where that is steep.',
    }),
  },
  { width: 0.5 },
  (field, { width }) => lineAtHalfNode(field, steady(width / 100)),
)
