import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { colourTableOf, readCube } from '@welkinar/core'
import { chooseFile } from '../../../common/files'
import { showProblem } from '../../../common/notices'
import { changeKind } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import type { EffectPanelProps } from '../effectInterface'

/** The table that colours go through, and the button that takes another from a file. */
export function TablePanel({ effect }: EffectPanelProps<'colourTable'>) {
  const { table } = effect.controls.pattern
  const choose = async () => {
    const file = await chooseFile('.cube')
    if (!file) return
    const name = file.name.replace(/\.cube$/i, '')
    const read = colourTableOf(name, readCube(await file.text(), file.name))
    changeKind('colourTable', effect.id, 'Choose a colour table', ({ controls }) => void (controls.pattern.table = read))
  }
  return (
    <Box sx={{ display: 'grid', gap: 2 }}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
        <Button variant="outlined" onClick={() => choose().catch((error: unknown) => showProblem(error, 'Opening the colour table'))}>
          Open a .cube file
        </Button>
        <Box sx={{ color: ink.secondary, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{table.name}</Box>
      </Box>
      <Box sx={{ color: ink.secondary }}>It is kept with the scene, and goes with its recipe.</Box>
    </Box>
  )
}
