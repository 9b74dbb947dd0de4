import { writeFile } from 'node:fs/promises'
import { pathToFileURL } from 'node:url'
import { loadKernels } from './kernels'
import { lookSheet } from './lookSheet'

// Run by `npm run docs`, from the top of the repository.
const top = pathToFileURL(`${process.cwd()}/`)
await writeFile(new URL('docs/looks.jpg', top), await lookSheet(await loadKernels(), new URL('demo/photos/', top)))
