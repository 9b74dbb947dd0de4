import { get } from 'node:http'
import { beforeAll, describe, expect, it } from 'vitest'
import { startServer } from './server'

interface Answer {
  readonly encoding: string | undefined
  readonly type: string | undefined
  readonly body: Buffer
}

/** Without decompressing it. */
const fetched = (address: string, accept?: string): Promise<Answer> =>
  new Promise((resolve, reject) => {
    get(address, { headers: accept ? { 'accept-encoding': accept } : {} }, (response) => {
      const parts: Buffer[] = []
      response.on('data', (part: Buffer) => parts.push(part))
      response.on('end', () =>
        resolve({ encoding: response.headers['content-encoding'], type: response.headers['content-type'], body: Buffer.concat(parts) }),
      )
    }).on('error', reject)
  })

describe('serving the built application', () => {
  let address: string
  let files: string[]
  beforeAll(async () => {
    address = await startServer({ port: 0, host: '127.0.0.1' })
    const page = (await fetched(`${address}/`)).body.toString()
    files = [...page.matchAll(/(?:src|href)="(\/assets\/[^"]+)"/g)].map(([, path]) => path!)
  })

  it('sends what the page begins with in less than 350 kB', async () => {
    expect(files.length).toBeGreaterThan(2)
    const answers = await Promise.all(files.map((file) => fetched(`${address}${file}`, 'gzip, deflate, br')))
    // What is shorter than that is not compressed: it gains nothing.
    const scripts = answers.filter(({ type, body }) => /javascript/.test(type ?? '') && body.length >= 1024)
    expect(new Set(scripts.map(({ encoding }) => encoding))).toEqual(new Set(['br']))
    expect(answers.reduce((sum, { body }) => sum + body.length, 0)).toBeLessThan(350_000)
  })

  it('sends the same, as it is, to whom takes nothing else', async () => {
    const plain = await fetched(`${address}${files[0]!}`)
    expect(plain.encoding).toBeUndefined()
    expect(plain.body.length).toBeGreaterThan(100_000)
  })
})
