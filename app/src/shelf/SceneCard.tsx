import { nameOfEffect } from '@welkinar/core'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import OutlinedInput from '@mui/material/OutlinedInput'
import { DotsThree } from '@phosphor-icons/react/dist/csr/DotsThree'
import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import { saveJson } from '../common/files'
import { showNotice, showProblem } from '../common/notices'
import { duplicateScene, putAwayScene, renameScene, restoreScene, unreadable, type ShelfEntry } from '../storage/scenes'
import { ink, weight } from '../theme'

/** A scene as a large picture, with its name and what can be done with it. */
export function SceneCard({ entry }: { readonly entry: ShelfEntry }) {
  const [renaming, setRenaming] = useState(false)
  const name = entry.scene?.name ?? 'A scene that cannot be read'
  const rename = (next: string) => {
    setRenaming(false)
    if (next.trim() && next.trim() !== name) attempt(() => renameScene(entry.id, next.trim()), 'Renaming')
  }
  return (
    <Box component="li">
      {entry.scene ? (
        <Box
          component={Link}
          to={`/scene/${entry.id}`}
          aria-label={`Open ${name}`}
          sx={{ display: 'block', bgcolor: ink.well, aspectRatio: '3 / 2', overflow: 'hidden' }}
        >
          <Picture blob={entry.thumbnail} />
        </Box>
      ) : (
        <Broken entry={entry} />
      )}
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mt: 2, minHeight: 32 }}>
        {renaming ? (
          <OutlinedInput
            autoFocus
            fullWidth
            defaultValue={name}
            inputProps={{ 'aria-label': 'New name', maxLength: 120 }}
            onBlur={(event) => rename(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter') rename((event.target as HTMLInputElement).value)
              if (event.key === 'Escape') setRenaming(false)
            }}
          />
        ) : (
          <Box sx={{ flex: 1, minWidth: 0 }}>
            <Box
              component="h2"
              sx={{ m: 0, fontSize: 15, fontWeight: weight.strong, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
            >
              {name}
            </Box>
            <Box sx={{ color: ink.secondary }}>{describe(entry)}</Box>
          </Box>
        )}
        <CardMenu entry={entry} name={name} onRename={() => setRenaming(true)} />
      </Box>
    </Box>
  )
}

function describe({ scene, edited }: ShelfEntry): string {
  const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' }).format(edited)
  if (!scene) return `last saved ${when}`
  const { width, height } = scene.photo
  const kinds =
    scene.effects.length === 0
      ? 'no effects yet'
      : scene.effects
          .map((effect) => nameOfEffect(effect).toLowerCase())
          .slice(0, 3)
          .join(', ')
  return `${kinds} · ${((width * height) / 1e6).toFixed(1)} megapixels · ${when}`
}

/** The picture of a scene. It is let go with the card; the browser would keep that of an image element for long. */
function Picture({ blob }: { readonly blob: Blob | undefined }) {
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    let ended = false
    const show = async (): Promise<void> => {
      const element = canvas.current
      if (!blob || !element) return
      const width = Math.round(element.clientWidth * window.devicePixelRatio)
      const picture = await createImageBitmap(blob, { resizeWidth: width, resizeQuality: 'high' })
      if (ended) return picture.close()
      element.width = picture.width
      element.height = picture.height
      element.getContext('bitmaprenderer')?.transferFromImageBitmap(picture)
    }
    show().catch((error: unknown) => console.warn(error))
    return () => {
      ended = true
    }
  }, [blob])
  return blob ? (
    <canvas ref={canvas} data-testid="scene picture" style={{ width: '100%', height: '100%', objectFit: 'cover', display: 'block' }} />
  ) : null
}

function Broken({ entry }: { readonly entry: ShelfEntry }) {
  return (
    <Box sx={{ aspectRatio: '3 / 2', p: 5, bgcolor: ink.well, borderLeft: `4px solid ${ink.accent}`, overflow: 'auto' }}>
      <Box sx={{ mb: 3 }}>{entry.problem} Its photo and the other scenes are untouched.</Box>
      <Button variant="outlined" onClick={() => attempt(() => saveUnreadable(entry), 'Saving')}>
        Save what is there as a file
      </Button>
    </Box>
  )
}

/** Hands a scene that cannot be read to the person, as it is stored. */
async function saveUnreadable({ id }: ShelfEntry): Promise<void> {
  saveJson(await unreadable(id), `scene ${id}, as stored`)
}

interface CardMenuProps {
  readonly entry: ShelfEntry
  readonly name: string
  onRename(): void
}

function CardMenu({ entry, name, onRename }: CardMenuProps) {
  const [anchor, setAnchor] = useState<HTMLElement>()
  const chosen = useRef<() => void>(undefined)
  const remove = async () => {
    await putAwayScene(entry.id, Date.now())
    showNotice(`“${name}” was deleted.`, { label: 'Undo', run: () => attempt(() => restoreScene(entry.id), 'Undoing') })
  }
  const duplicate = () => duplicateScene(entry.id, Date.now())
  const entries = [
    ...(entry.scene && !entry.isNewer
      ? [
          { label: 'Rename', run: onRename },
          { label: 'Duplicate', run: () => attempt(duplicate, 'Duplicating') },
        ]
      : []),
    { label: 'Delete', run: () => attempt(remove, 'Deleting') },
  ]
  return (
    <>
      <IconButton aria-label={`More about ${name}`} onClick={(event) => setAnchor(event.currentTarget)} sx={{ color: ink.ink }}>
        <DotsThree size={20} weight="bold" />
      </IconButton>
      <Menu
        open={anchor !== undefined}
        anchorEl={anchor ?? null}
        onClose={() => {
          chosen.current = undefined
          setAnchor(undefined)
        }}
        // The focus has gone back to the button by then, so that what was chosen may take it.
        slotProps={{ transition: { onExited: () => chosen.current?.() } }}
      >
        {entries.map(({ label, run }) => (
          <MenuItem
            key={label}
            onClick={() => {
              chosen.current = run
              setAnchor(undefined)
            }}
          >
            {label}
          </MenuItem>
        ))}
      </Menu>
    </>
  )
}

function attempt(work: () => Promise<unknown>, doing: string): void {
  work().catch((error: unknown) => showProblem(error, doing))
}
