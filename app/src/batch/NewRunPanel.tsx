import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import TextField from '@mui/material/TextField'
import { X } from '@phosphor-icons/react/dist/csr/X'
import { useState } from 'react'
import { useDropzone } from 'react-dropzone'
import { useSearchParams } from 'react-router'
import { bytesInWords } from '../common/files'
import { showProblem } from '../common/notices'
import { NARROW } from '../common/useNarrow'
import { addRun } from '../storage/runs'
import { askForPersistence } from '../storage/storageSpace'
import { ink, weight } from '../theme'
import { canChooseFolder, chooseFolder } from './folder'
import { firstOutput, namePlaces, namesOf, usualPattern } from './outputs'
import { OutputRows } from './OutputRows'
import { keptOutputs, keepOutputs } from './keptOutputs'
import { RecipeChoice, useRecipeOffers, type RecipeOffer } from './RecipeChoice'
import { goOn } from './runner'

const PANEL = 420
/** Files of one run. */
const MOST_PHOTOS = 2000

/** Asks for the photos, the recipes, and what is to be made of them. */
export function NewRunPanel() {
  const [photos, setPhotos] = useState<readonly File[]>([])
  const [parameters] = useSearchParams()
  const offers = useRecipeOffers()
  const [chosen, setChosen] = useState<readonly string[]>(parameters.getAll('recipe'))
  const [outputs, setOutputs] = useState(() => keptOutputs() ?? [firstOutput])
  const [pattern, setPattern] = useState(usualPattern)
  const [folder, setFolder] = useState<FileSystemDirectoryHandle>()
  const [beginning, setBeginning] = useState(false)
  const dropzone = useDropzone({
    noClick: true,
    noKeyboard: true,
    onDrop: (files) => setPhotos((before) => withoutTwins([...before, ...files.filter(isMeant)]).slice(0, MOST_PHOTOS)),
  })
  const recipes = chosen.flatMap((key) => offers.find((one) => one.key === key) ?? [])
  const names = namesOf({
    photos: photos.map(({ name }) => name),
    recipes: recipes.map(({ name }) => name),
    outputs,
    pattern,
    today: new Date(),
  })
  const count = photos.length * recipes.length * outputs.length
  const begin = async () => {
    setBeginning(true)
    try {
      await askForPersistence()
      const id = await addRun({ photos, recipes: recipes.map(({ given }) => given), outputs, names, ...(folder && { folder }) })
      keepOutputs(outputs)
      goOn(id)
    } finally {
      setBeginning(false)
    }
  }
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: 'flex', [NARROW]: { flexDirection: 'column', overflowY: 'auto' } }}>
      <Box
        {...dropzone.getRootProps({ role: 'main' })}
        component="main"
        sx={{
          flex: 1,
          minWidth: 0,
          overflowY: 'auto',
          p: 5,
          bgcolor: ink.surround,
          outline: dropzone.isDragActive ? `3px solid ${ink.accent}` : 'none',
          outlineOffset: -3,
        }}
      >
        <input {...dropzone.getInputProps({ 'aria-label': 'Photo files' })} />
        {photos.length === 0 ? (
          <Box sx={{ minHeight: '100%', display: 'grid', placeItems: 'center' }}>
            <Box sx={{ bgcolor: ink.paper, p: 8, textAlign: 'center', display: 'grid', gap: 4, justifyItems: 'center' }}>
              <Box sx={{ fontSize: 15 }}>Drop photos, or a folder of them, here</Box>
              <Button variant="contained" onClick={dropzone.open}>
                Choose photos
              </Button>
            </Box>
          </Box>
        ) : (
          <Box sx={{ bgcolor: ink.paper }}>
            <Box sx={{ display: 'flex', alignItems: 'center', gap: 3, px: 4, py: 3 }}>
              <Box sx={{ flex: 1, fontWeight: weight.strong }}>
                {photos.length === 1 ? 'One photo' : `${photos.length} photos`},{' '}
                {bytesInWords(photos.reduce((sum, { size }) => sum + size, 0))}
              </Box>
              <Button variant="outlined" onClick={dropzone.open}>
                Add photos
              </Button>
              <Button variant="outlined" onClick={() => setPhotos([])}>
                Clear
              </Button>
            </Box>
            <Box component="ul" aria-label="Photos" sx={{ listStyle: 'none', m: 0, p: 0 }}>
              {photos.map((photo, i) => (
                <Box
                  component="li"
                  key={`${i} ${photo.name}`}
                  sx={{
                    contentVisibility: 'auto',
                    containIntrinsicSize: 'auto 32px',
                    display: 'flex',
                    alignItems: 'center',
                    gap: 3,
                    px: 4,
                    minHeight: 32,
                    borderTop: `1px solid ${ink.rule}`,
                  }}
                >
                  <Box sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{photo.name}</Box>
                  <Box sx={{ color: ink.secondary }}>{bytesInWords(photo.size)}</Box>
                  <IconButton
                    size="small"
                    aria-label={`Leave out ${photo.name}`}
                    onClick={() => setPhotos((before) => before.filter((_, at) => at !== i))}
                    sx={{ p: '5px', color: ink.ink }}
                  >
                    <X size={14} />
                  </IconButton>
                </Box>
              ))}
            </Box>
          </Box>
        )}
      </Box>
      <Box
        component="aside"
        aria-label="What is made of them"
        sx={{
          width: PANEL,
          flex: 'none',
          display: 'flex',
          flexDirection: 'column',
          borderLeft: `1px solid ${ink.rule}`,
          [NARROW]: { width: '100%' },
        }}
      >
        <Box
          sx={{
            flex: 1,
            minHeight: 0,
            overflowY: 'auto',
            p: 5,
            display: 'grid',
            gap: 6,
            alignContent: 'start',
            [NARROW]: { overflowY: 'visible' },
          }}
        >
          <RecipeChoice offers={offers} chosen={chosen} onChange={setChosen} />
          <OutputRows outputs={outputs} onChange={setOutputs} />
          <Box>
            <TextField
              fullWidth
              label="Names"
              value={pattern}
              onChange={(event) => setPattern(event.target.value)}
              slotProps={{ htmlInput: { maxLength: 120 } }}
            />
            <Box sx={{ mt: 2, color: ink.secondary }}>
              {Object.entries(namePlaces)
                .map(([place, words]) => `${place} ${words}`)
                .join(', ')}
              {names[0]?.[0]?.[0] && <Box>The first will be “{names[0][0][0]}”.</Box>}
            </Box>
          </Box>
          <Box sx={{ display: 'grid', gap: 2, justifyItems: 'start' }}>
            <Box component="h2" sx={{ m: 0, fontSize: 13, fontWeight: weight.strong }}>
              Where they go
            </Box>
            <Box sx={{ color: ink.secondary }}>
              {folder
                ? `Into the folder “${folder.name}”, each as soon as it is made.`
                : 'They are kept here until you save them as one zip.'}
            </Box>
            {canChooseFolder() && (
              <Button
                variant="outlined"
                onClick={() =>
                  void (folder ? Promise.resolve(undefined) : chooseFolder()).then(setFolder, (error: unknown) =>
                    showProblem(error, 'Choosing a folder'),
                  )
                }
              >
                {folder ? 'Not into a folder' : 'Write into a folder'}
              </Button>
            )}
          </Box>
        </Box>
        <Box sx={{ flex: 'none', p: 5, pt: 4, borderTop: `1px solid ${ink.rule}`, display: 'grid' }}>
          <Button
            variant="contained"
            disabled={count === 0 || beginning}
            onClick={() => void begin().catch((error: unknown) => showProblem(error, 'Beginning'))}
            sx={{ minHeight: 40 }}
          >
            {count === 0 ? missing(photos, recipes) : count === 1 ? 'Make the file' : `Make ${count} files`}
          </Button>
        </Box>
      </Box>
    </Box>
  )
}

function missing(photos: readonly File[], recipes: readonly RecipeOffer[]): string {
  return photos.length === 0 ? 'Choose photos first' : recipes.length === 0 ? 'Choose a recipe first' : 'Add a file to make'
}

/** What systems keep in folders for themselves is no photo of anybody. */
function isMeant({ name }: File): boolean {
  return !name.startsWith('.') && name !== 'Thumbs.db' && name !== 'desktop.ini'
}

/** The same file chosen twice is one; files of one name in two folders are two. */
function withoutTwins(files: readonly File[]): readonly File[] {
  const seen = new Set<string>()
  return files.filter((file) => {
    const key = JSON.stringify([(file as { path?: string }).path ?? file.webkitRelativePath, file.name, file.size, file.lastModified])
    return !seen.has(key) && seen.add(key)
  })
}
