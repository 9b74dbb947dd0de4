import { turnedPlace, type PatternBox } from '../../model/patternBox'
import { originOf } from '../origin'
import type { CustomFieldControls } from './definition'

/** Photo px that the box about a picture measures at 100 %, as part of the photo's width. */
const BOX = 0.4

/** What a box about a custom field moves: noise without end, or a picture. */
export const fieldBox: PatternBox<CustomFieldControls> = {
  paths: ['sizeX', 'sizeY', 'turn', 'enlarge', 'moveX', 'moveY'].map((key) => `pattern.${key}`),
  lacks: [],
  read({ pattern }, scene) {
    const { turn, moveX, moveY, sizeX, sizeY, enlarge, source } = pattern
    if (source === 'picture')
      return { x: scene.width / 2 + moveX, y: scene.height / 2 + moveY, size: (BOX * scene.width * enlarge) / 100, stretch: 1, turn }
    if (!isEndless(pattern)) return undefined
    const about = originOf(pattern, scene.marks)
    const [dx, dy] = turnedBy(turn, moveX, moveY)
    return { ...turnedPlace(about, turn, { x: dx, y: dy }), size: Math.sqrt(sizeX * sizeY), stretch: sizeX / sizeY, turn }
  },
  write({ pattern }, { x, y, size, stretch, turn }, scene) {
    if (pattern.source === 'picture') {
      const [moveX, moveY] = [x - scene.width / 2, y - scene.height / 2]
      Object.assign(pattern, { turn, moveX, moveY, enlarge: (100 * size) / (BOX * scene.width) })
      return
    }
    const still = turnedPlace(originOf(pattern, scene.marks), turn, { x: 0, y: 0 })
    const [moveX, moveY] = turnedBy(-turn, x - still.x, y - still.y)
    Object.assign(pattern, { turn, moveX, moveY, sizeX: size * Math.sqrt(stretch), sizeY: size / Math.sqrt(stretch) })
  },
}

function isEndless({ source, tiling }: CustomFieldControls['pattern']): boolean {
  return (source === 'smooth' || source === 'billowed') && tiling === 'off'
}

/** A way turned counter-clockwise; y points down. */
export function turnedBy(degrees: number, x: number, y: number): [number, number] {
  const radians = (degrees * Math.PI) / 180
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)]
  return [cos * x + sin * y, cos * y - sin * x]
}
