import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import {
  colourTableNode,
  colourTableOf,
  definitionOf,
  frameOfSource,
  readCube,
  sceneGraph,
  turnedInFrame,
  type ColourTable,
} from '@welkinar/core'
import { useLiveQuery } from 'dexie-react-hooks'
import { useMemo } from 'react'
import { chooseFiles } from '../../../common/files'
import { showProblem } from '../../../common/notices'
import type { SceneChange } from '../../../scene/history'
import { changeKind, type EffectOf } from '../../../scene/sceneStore'
import { dropTable, keepTables, openedTables } from '../../../storage/tables'
import { ink } from '../../../theme'
import { PictureChoices } from '../../pictures/PictureChoices'
import type { EffectPanelProps } from '../effectInterface'
import { useSource } from '../../../scene/openSceneContext'

const none: readonly ColourTable[] = []
const own = definitionOf('colourTable').startingLooks.map(({ controls }) => (controls as EffectOf<'colourTable'>['controls']).pattern.table)

/** What lies beneath through each table that is at hand, to go through them one by one; and files of others. */
export function TablePanel({ effect }: EffectPanelProps<'colourTable'>) {
  const source = useSource()
  const { table } = effect.controls.pattern
  const opened = useLiveQuery(openedTables) ?? none
  const tables = useMemo(() => {
    const atHand = [...opened, ...own]
    return atHand.some(({ codes }) => codes === table.codes) ? atHand : [table, ...atHand]
  }, [opened, table])
  const frame = frameOfSource(source)
  const beneath = sceneGraph(source, { kind: 'beneath', effectId: effect.id })
  // Large tables take long to be hashed: not once more while another dial is moved.
  const nodes = useMemo(
    () => tables.map((one) => turnedInFrame(colourTableNode(beneath, one), frame)),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key stands for the node, what is shown for the frame
    [tables, beneath.key, frame.x, frame.y, frame.width, frame.height, frame.turn],
  )
  const take = (chosen: ColourTable) =>
    changeKind('colourTable', effect.id, 'Choose a colour table', ({ controls }) => void (controls.pattern.table = chosen))
  const open = async () => {
    const read: ColourTable[] = []
    for (const file of await chooseFiles('.cube')) {
      try {
        read.push(colourTableOf(file.name.replace(/\.cube$/i, ''), readCube(await file.text(), file.name)))
      } catch (error) {
        showProblem(error, 'Opening the colour table')
      }
    }
    const [first] = read
    if (!first) return
    take(first)
    await keepTables(read)
  }
  const drop = async () => {
    await dropTable(table)
  }
  const height = Math.round(Math.min(70, (WIDTH * frame.height) / frame.width))
  return (
    <Box sx={{ display: 'grid', gap: 2 }}>
      <PictureChoices
        photo={source.photo}
        frame={frame}
        label="Colour tables"
        choices={named(tables).map(([words, one], index) => ({
          words,
          node: nodes[index] ?? beneath,
          change: tableChange(effect.id, one),
          choose: () => take(one),
        }))}
        columns={COLUMNS}
        chosen={tables.findIndex(({ codes }) => codes === table.codes)}
        width={WIDTH}
        height={height}
        captions
      />
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button variant="outlined" onClick={() => open().catch((error: unknown) => showProblem(error, 'Opening the colour table'))}>
          Open .cube files
        </Button>
        {opened.some(({ codes }) => codes === table.codes) && (
          <Button variant="text" onClick={() => drop().catch((error: unknown) => showProblem(error, 'Taking a colour table out'))}>
            Take it off this list
          </Button>
        )}
      </Box>
      <Box sx={{ color: ink.secondary }}>
        Opened tables stay in this browser. The one in use is kept with the scene, and goes with its recipe.
      </Box>
    </Box>
  )
}

const COLUMNS = 3
/** Of a picture, css px. */
const WIDTH = 88

/** Tables by names that differ. */
function named(tables: readonly ColourTable[]): readonly (readonly [words: string, table: ColourTable])[] {
  const seen = new Map<string, number>()
  return tables.map((table) => {
    const count = (seen.get(table.name) ?? 0) + 1
    seen.set(table.name, count)
    return [count > 1 ? `${table.name} (${count})` : table.name || 'Without a name', table] as const
  })
}

function tableChange(id: string, table: ColourTable): SceneChange {
  return (scene) => {
    for (const effect of scene.effects) if (effect.id === id && effect.kind === 'colourTable') effect.controls.pattern.table = table
  }
}
