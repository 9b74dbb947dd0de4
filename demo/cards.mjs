// Makes the pictures that the Shelf shows of the demo scenes, with the command line of the built application.
import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'

const WIDTH = 640
const folder = new URL('./photos/', import.meta.url)
const { scenes } = JSON.parse(readFileSync(new URL('scenes.json', folder), 'utf8'))

for (const { photo, recipe, marks, card } of scenes) {
  const { madeFor } = JSON.parse(readFileSync(new URL(marks, folder), 'utf8'))
  const files = { photo, recipe, marks, out: card }
  const options = Object.entries(files).flatMap(([name, file]) => [`--${name}`, new URL(file, folder).pathname])
  const script = new URL('../server/dist/welkinar.js', import.meta.url).pathname
  const { status } = spawnSync(
    'node',
    [script, 'render', '--overwrite', ...options, '--scale', String(WIDTH / madeFor.width), '--quality', '86'],
    {
      stdio: 'inherit',
    },
  )
  if (status !== 0) process.exit(status ?? 1)
}
