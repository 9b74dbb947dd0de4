// npm run recipes -- [photos]: every built-in recipe on photos, as sheets of small pictures; of the demo photos the first of each sheet stands in docs/recipes.png.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { basename, extname, join, resolve } from 'node:path'
import sharp from 'sharp'
import { build, root } from './lib.mjs'
