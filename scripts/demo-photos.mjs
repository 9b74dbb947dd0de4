// npm run demo:photos: takes the sample photos again. It needs a quarter of an hour to two hours for each.
import { installPackages, mustRun } from './lib.mjs'

installPackages()
mustRun('npm', ['run', '--silent', 'photos', '-w', 'demo', '--', ...process.argv.slice(2)])
