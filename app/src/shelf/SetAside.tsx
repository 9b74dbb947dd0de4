import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useLiveQuery } from 'dexie-react-hooks'
import { useNavigate } from 'react-router'
import { saveJson } from '../common/files'
import { showNotice, showProblem } from '../common/notices'
import { openSetAside } from '../storage/scenes'
import { deleteSetAside, listSetAside, putBackSetAside, versionOf, type SetAsideEntry } from '../storage/setAside'
import { ink, weight } from '../theme'

const date = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' })

/** What could not be read as it was stored, version by version: it can be opened as far as that goes, saved as a file, or deleted. */
export function SetAside() {
  const versions = useLiveQuery(listSetAside) ?? []
  if (versions.length === 0) return null
  return (
    <Box component="section" aria-labelledby="set-aside" sx={{ mt: 10 }}>
      <Typography id="set-aside" component="h2" sx={{ fontSize: 17, fontWeight: weight.strong }}>
        Set aside
      </Typography>
      <Typography sx={{ mt: 1, mb: 3, color: ink.secondary, maxWidth: 720 }}>
        Something in these scenes could not be read. They lie here as they were stored, until you delete them.
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {versions.map((version) => (
          <Version key={version.id} version={version} />
        ))}
      </Box>
    </Box>
  )
}

function Version({ version }: { readonly version: SetAsideEntry }) {
  const { id, name, when, why } = version
  const navigate = useNavigate()
  const attempt = (work: Promise<unknown>, doing: string) => void work.catch((error: unknown) => showProblem(error, doing))
  const open = async () => navigate(`/scene/${await openSetAside(id, Date.now())}`)
  const save = async () => saveJson(await versionOf(id), `${name}, set aside`)
  const remove = async () => {
    const deleted = await deleteSetAside(id)
    const undo = () => attempt(putBackSetAside(deleted), 'Undoing')
    showNotice(`The version of “${name}” that was set aside was deleted.`, { label: 'Undo', run: undo })
  }
  return (
    <Box component="li" sx={{ display: 'flex', gap: 4, alignItems: 'center', py: 3, borderTop: `1px solid ${ink.rule}` }}>
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Box sx={{ fontSize: 15, fontWeight: weight.strong, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {name}
        </Box>
        <Box sx={{ color: ink.secondary }}>
          {date.format(when)} · {inWords(why)}
        </Box>
      </Box>
      <Button variant="outlined" aria-label={`Open the version of ${name}`} onClick={() => attempt(open(), 'Opening')}>
        Open
      </Button>
      <Button variant="outlined" aria-label={`Save the version of ${name} as a file`} onClick={() => attempt(save(), 'Saving')}>
        Save as a file
      </Button>
      <Button variant="outlined" aria-label={`Delete the version of ${name}`} onClick={() => attempt(remove(), 'Deleting')}>
        Delete
      </Button>
    </Box>
  )
}

function inWords(why: readonly string[]): string {
  const more = why.length > 2 ? `; and ${why.length - 2} more` : ''
  return `${why.slice(0, 2).join('; ')}${more}`
}
