// npm start: installs what is missing, builds, serves, and prints the address.
import { build, installPackages, run } from './lib.mjs'

installPackages()
build()
process.exit(run('node', ['server/dist/main.js']) ? 0 : 1)
