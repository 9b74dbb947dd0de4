// npm run bench [-- --only NAME]: benchmarks; the tables go to docs/benchmarks.md.
import { build, installChromium, installPackages, mustRun } from './lib.mjs'

installPackages()
await installChromium()
build()
mustRun('npm', ['run', '--silent', 'bench', '-w', 'bench', '--', ...process.argv.slice(2)])
