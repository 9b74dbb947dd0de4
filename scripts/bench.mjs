// npm run bench: all benchmarks; the table goes to docs/benchmarks.md.
import { build, installChromium, installPackages, mustRun } from './lib.mjs'

installPackages()
installChromium()
build()
mustRun('npm', ['run', '--silent', 'bench', '-w', 'bench'])
