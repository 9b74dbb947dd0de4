// npm run dev: the application with reloading.
import { installPackages, mustRun } from './lib.mjs'

installPackages()
mustRun('npm', ['run', '--silent', 'build', '-w', 'kernels'])
mustRun('npm', ['run', 'dev', '-w', 'app'])
