// npm run demo:photos: takes the sample photos again. It needs some minutes for each.
import { installPackages, mustRun } from './lib.mjs'

installPackages()
mustRun('npm', ['run', '--silent', 'photos', '-w', 'demo', '--', ...process.argv.slice(2)])
