// npm run bench [-- --only NAME]: benchmarks; the tables go to docs/benchmarks.md.
import { build, installFromDebian, installPackages, mustRun } from './lib.mjs'

installPackages()
await installFromDebian()
build()
mustRun('npm', ['run', '--silent', 'bench', '-w', 'bench', '--', ...process.argv.slice(2)])
