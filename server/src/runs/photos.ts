import { existsSync } from 'node:fs'
import { relative, resolve, sep } from 'node:path'
import picomatch from 'picomatch'
import { glob, isDynamicPattern } from 'tinyglobby'
import { CallProblem } from '../callProblem'
import { storeAt } from '../stores/openStore'
import { isBucket, type Store } from '../stores/store'

/**
 * The photos that files, addresses and patterns name, in the order of their names, numbers by their value; of a pattern none of those that lie where is written to.
 * @throws CallProblem if a pattern names none
 */
export async function photosOf(photos: readonly string[], out: Store): Promise<readonly string[]> {
  const found = await Promise.all(photos.map((one) => (isBucket(one) ? inBucket(one, out) : inFolder(one, out))))
  return [...new Set(found.flat())].toSorted(new Intl.Collator('en', { numeric: true }).compare)
}

async function inFolder(named: string, out: Store): Promise<readonly string[]> {
  // What is there, or is no pattern, is meant as it is written; if it is missing that is said of it, as of a photo that cannot be read.
  if (existsSync(named) || !isDynamicPattern(named)) return [named]
  const all = await glob(named.split(sep).join('/'), { expandDirectories: false })
  const apart = isBucket(out.address) ? all : all.filter((path) => relative(out.address, resolve(path)).startsWith('..'))
  return foundBy(named, apart)
}

async function inBucket(named: string, out: Store): Promise<readonly string[]> {
  const [, bucket = '', pattern = ''] = /^s3:\/\/([^/]+)\/(.+)$/i.exec(named) ?? []
  const { base, isGlob } = picomatch.scan(pattern)
  if (!isGlob) return [named]
  const matches = picomatch(pattern)
  const paths = await (await storeAt(`s3://${bucket}`)).list(base.replace(/\/$/, ''))
  const addresses = paths.filter((path) => matches(path)).map((path) => `s3://${bucket}/${path}`)
  return foundBy(
    named,
    addresses.filter((address) => !address.startsWith(`${out.address}/`)),
  )
}

function foundBy(named: string, found: readonly string[]): readonly string[] {
  if (found.length === 0) throw new CallProblem(`--photos names no file: “${named}”.`)
  return found
}
