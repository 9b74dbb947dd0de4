import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { choiceOf, repairSchema, type Repair } from '@welkinar/core'
import { Choice } from '../../common/Choice'
import { SchemaNumber } from '../controls/SchemaNumber'
import { useScene } from '../../scene/sceneStore'
import { Hint, Section } from '../controls/Section'
import { ToolButton } from '../controls/ToolButton'
import { useMending } from '../actions/mending'
import { changeRepair, removeRepair } from '../actions/repairs'
import { useSource } from '../../scene/openSceneContext'
import { TwoColumns } from '../../common/TwoColumns'

const keepsChoice = choiceOf(repairSchema.shape.keeps)
const numbers = ['radius', 'soft'] as const

/** Spots that are mended. */
export function RepairSection() {
  const source = useSource()
  const repairs = source.groundwork?.repairs ?? []
  const chosenId = useScene((state) => state.chosenRepair)
  const nextKeeps = useMending((state) => state.keeps)
  const held = useScene((state) => state.tool?.kind === 'mend')
  const index = repairs.findIndex(({ id }) => id === chosenId)
  const chosen = repairs[index]
  const keeps = (words: string, value: Repair['keeps'], onChange: (value: Repair['keeps']) => void) =>
    keepsChoice && (
      <Choice label={words} value={value} options={keepsChoice.options} onChange={(next) => onChange(next as Repair['keeps'])} />
    )
  return (
    <Section title="Spots" action={<ToolButton tool={{ kind: 'mend' }} label="Mend a spot" />}>
      {repairs.length === 0 && !held && <Hint>A bird, a wire’s end, a speck on the sensor: it is mended from what lies around it.</Hint>}
      {held && keeps('The next spot', nextKeeps, (value) => useMending.setState({ keeps: value }))}
      {repairs.length > 0 && (
        <Box role="group" aria-label="Mended spots" sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
          {repairs.map(({ id }, i) => (
            <Button
              key={id}
              variant={id === chosenId ? 'contained' : 'outlined'}
              aria-pressed={id === chosenId}
              aria-label={`Mended spot ${i + 1}`}
              onClick={() => useScene.getState().set({ chosenRepair: id === chosenId ? undefined : id, tool: undefined })}
              sx={{ minWidth: 32, px: 2 }}
            >
              {i + 1}
            </Button>
          ))}
        </Box>
      )}
      {chosen && !held && (
        <>
          <TwoColumns>
            {numbers.map((key) => (
              <SchemaNumber
                key={key}
                schema={repairSchema.shape[key]}
                value={chosen[key]}
                start={key === 'soft' ? 25 : chosen[key]}
                onChange={(value, gesture, label) => changeRepair(chosen.id, label, (one) => void (one[key] = value), gesture)}
              />
            ))}
          </TwoColumns>
          {keeps('What is mended', chosen.keeps, (value) => changeRepair(chosen.id, 'What is mended', (one) => void (one.keeps = value)))}
          <Button variant="text" onClick={() => removeRepair(chosen.id)} sx={{ justifySelf: 'start' }}>
            Remove spot {index + 1}
          </Button>
        </>
      )}
    </Section>
  )
}
