// npm run docs: writes the tables of controls in docs/formats.md from the schemas. npm test says when they are not fresh.
import { installPackages, mustRun } from './lib.mjs'

installPackages()
const env = { ...process.env, WELKINAR_WRITE_DOCS: '1' }
mustRun('npx', ['vitest', 'run', '--config', 'vitest.config.ts', 'core/src/model/formats.test.ts'], { env })
mustRun('npx', ['prettier', '--write', '--log-level=warn', 'docs/formats.md'])
