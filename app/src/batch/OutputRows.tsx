import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import { X } from '@phosphor-icons/react/dist/csr/X'
import {
  allColourSpaces,
  colourSpaces,
  exportFormats,
  fileFormats,
  type BitDepth,
  type ColourSpace,
  type ExportFormat,
} from '@welkinar/core'
import { Choice } from '../common/Choice'
import { NumberField } from '../common/NumberField'
import type { RunOutput } from '../storage/database'
import { ink, weight } from '../theme'
import { LEAST_SIDE } from './keptOutputs'
import { firstOutput } from './outputs'

interface OutputRowsProps {
  readonly outputs: readonly RunOutput[]
  onChange(outputs: RunOutput[]): void
}

const MOST_OUTPUTS = 6
const START_SIDE = 2048
const sides = { least: LEAST_SIDE, most: 60_000, whole: true }
const ofSides = { step: 1, unit: 'px' as const }
const qualities = { least: 1, most: 100, whole: true }
const ofQuality = { step: 1, unit: '' as const }

/** The files that are made of each photo and recipe. */
export function OutputRows({ outputs, onChange }: OutputRowsProps) {
  const change = (at: number, part: Partial<RunOutput>) => onChange(outputs.map((one, i) => (i === at ? { ...one, ...part } : one)))
  return (
    <Box component="section" aria-labelledby="run-files" sx={{ display: 'grid', gap: 2 }}>
      <Box component="h2" id="run-files" sx={{ m: 0, fontSize: 13, fontWeight: weight.strong }}>
        Files of each photo
      </Box>
      {outputs.map((output, i) => (
        <OutputRow
          key={i}
          output={output}
          number={i + 1}
          onChange={(part) => change(i, part)}
          onRemove={outputs.length > 1 ? () => onChange(outputs.filter((_, at) => at !== i)) : undefined}
        />
      ))}
      <Button
        variant="outlined"
        disabled={outputs.length >= MOST_OUTPUTS}
        onClick={() => onChange([...outputs, { ...firstOutput, longSide: START_SIDE }])}
        sx={{ justifySelf: 'start' }}
      >
        Add a file
      </Button>
    </Box>
  )
}

interface OutputRowProps {
  readonly output: RunOutput
  readonly number: number
  readonly onRemove: (() => void) | undefined
  onChange(part: Partial<RunOutput>): void
}

function OutputRow({ output, number, onRemove, onChange }: OutputRowProps) {
  const { format, bits, quality, space, longSide } = output
  const { depths, hasQuality } = fileFormats[format]
  const setFormat = (next: ExportFormat) => onChange({ format: next, bits: fileFormats[next].depths.includes(bits) ? bits : 8 })
  return (
    <Box role="group" aria-label={`File ${number}`} sx={{ bgcolor: ink.raised, p: 3, display: 'grid', gap: 2, position: 'relative' }}>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 3, rowGap: 2, pr: onRemove ? 6 : 0 }}>
        <Choice
          label="Format"
          value={format}
          options={exportFormats.map((one) => [one, fileFormats[one].name])}
          onChange={(next) => setFormat(next as ExportFormat)}
        />
        <Choice
          label="Size"
          value={longSide === null ? 'full' : 'smaller'}
          options={[
            ['full', 'As the photo'],
            ['smaller', 'Longer side'],
          ]}
          onChange={(next) => onChange({ longSide: next === 'full' ? null : START_SIDE })}
        />
        <Choice
          label="Colours"
          value={space}
          options={allColourSpaces.map((one) => [one, colourSpaces[one].label])}
          onChange={(next) => onChange({ space: next as ColourSpace })}
        />
        {depths.length > 1 && (
          <Choice
            label="Bits of a channel"
            value={String(bits)}
            options={depths.map((one) => [String(one), `${one} bit`])}
            onChange={(next) => onChange({ bits: Number(next) as BitDepth })}
          />
        )}
        {hasQuality && (
          <Box sx={{ display: 'flex', alignItems: 'center', alignSelf: 'end', minHeight: 32 }}>
            <Box sx={{ flex: 1 }}>Quality</Box>
            <NumberField
              label={`Quality of file ${number}`}
              value={quality}
              limits={qualities}
              control={ofQuality}
              onChange={(next) => onChange({ quality: next })}
            />
          </Box>
        )}
        {longSide !== null && (
          <Box sx={{ display: 'flex', alignItems: 'center', alignSelf: 'end', minHeight: 32 }}>
            <Box sx={{ flex: 1 }}>Longer side</Box>
            <NumberField
              label={`Longer side of file ${number}`}
              value={longSide}
              limits={sides}
              control={ofSides}
              onChange={(next) => onChange({ longSide: next })}
            />
          </Box>
        )}
      </Box>
      {onRemove && (
        <IconButton
          size="small"
          aria-label={`Without file ${number}`}
          onClick={onRemove}
          sx={{ position: 'absolute', top: 4, right: 4, p: '5px', color: ink.ink }}
        >
          <X size={14} />
        </IconButton>
      )}
    </Box>
  )
}
