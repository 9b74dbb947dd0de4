import { chainedPinnedStates, regionsReadingOneAnother } from '../../core/test-support/chains'
import { sceneGraph } from '../../core/src/render/sceneGraph'
import { limitRow, median, type Row } from './measure'

const RUNS = 9

/** Building the graph of scenes whose parts read one another, from nothing: on the page's thread this is what a change waits for. */
export function graphRows(): Row[] {
  const scenes = [
    ['Graph of twelve regions that read one another', () => regionsReadingOneAnother(12)],
    ['Graph of ten chained pinned states of ten effects', () => chainedPinnedStates(10)],
  ] as const
  return scenes.map(([work, scene]) => {
    const times = Array.from({ length: RUNS }, () => {
      const source = scene()
      const start = performance.now()
      sceneGraph(source)
      return performance.now() - start
    })
    return limitRow(work, median(times.slice(1)), 50, 'each time of a new scene, so that nothing is known of it')
  })
}
