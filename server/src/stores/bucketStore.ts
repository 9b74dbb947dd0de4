import {
  GetObjectCommand,
  HeadObjectCommand,
  ListObjectsV2Command,
  PutObjectCommand,
  S3Client,
  S3ServiceException,
} from '@aws-sdk/client-s3'
import { UserProblem } from '@welkinar/core'
import { CallProblem } from '../callProblem'
import { sha256 } from '../sha256'
import type { BeginOptions, Store, StoredFile } from './store'

/**
 * A part of a bucket of an object storage that speaks S3. Where it is and who we are there is told by the environment alone (AWS_ENDPOINT_URL, AWS_REGION, AWS_ACCESS_KEY_ID, …), and
 * written nowhere. Nothing is asked of it that not every server knows: no conditional writes, checksums only where they are required.
 */
export class BucketStore implements Store {
  private constructor(
    readonly address: string,
    private readonly client: S3Client,
    private readonly bucket: string,
    private readonly prefix: string,
  ) {}

  /** @throws CallProblem if the address is none */
  static open(address: string): Promise<BucketStore> {
    const [, bucket, prefix = ''] = /^s3:\/\/([^/]+)(?:\/(.*?))?\/?$/i.exec(address) ?? []
    if (bucket === undefined) throw new CallProblem(`“${address}” is no address of an object storage; those are s3://bucket/folder.`)
    return Promise.resolve(new BucketStore(address.replace(/\/$/, ''), clientOf(), bucket, prefix === '' ? '' : `${prefix}/`))
  }

  async read(path: string): Promise<Uint8Array> {
    try {
      const { Body } = await this.client.send(new GetObjectCommand(this.object(path)))
      return await Body!.transformToByteArray()
    } catch (error) {
      throw this.problem(path, 'read', error)
    }
  }

  async hashOf(path: string): Promise<string | undefined> {
    if (!(await this.isThere(path))) return undefined
    return sha256(await this.read(path))
  }

  async list(folder: string): Promise<readonly string[]> {
    const paths: string[] = []
    try {
      for (let next: string | undefined, first = true; first || next; first = false) {
        const Prefix = folder === '' ? this.prefix : `${this.prefix}${folder}/`
        const { Contents = [], NextContinuationToken } = await this.client.send(
          new ListObjectsV2Command({ Bucket: this.bucket, Prefix, ContinuationToken: next }),
        )
        paths.push(...Contents.flatMap(({ Key }) => (Key === undefined || Key.endsWith('/') ? [] : [Key.slice(this.prefix.length)])))
        next = NextContinuationToken
      }
    } catch (error) {
      throw this.problem(folder, 'listed', error)
    }
    return paths
  }

  async begin(path: string, { overwrite, inputs = {} }: BeginOptions): Promise<StoredFile> {
    const address = `${this.address}/${path}`
    const same = Object.entries(inputs).find(([, input]) => input === address)
    if (same) throw new CallProblem(`“${address}” is ${same[0]} itself; give another name to --out.`)
    const refuse = async (): Promise<void> => {
      if (!overwrite && (await this.isThere(path))) throw new CallProblem(`“${address}” is there already; --overwrite replaces it.`)
    }
    await refuse()
    return {
      finish: async (content) => {
        await refuse()
        // An object is there with its last byte.
        const Body = new Uint8Array(await content.arrayBuffer())
        const what = { ...this.object(path), Body, ContentLength: Body.length, ContentType: content.type || 'application/octet-stream' }
        await this.client.send(new PutObjectCommand(what)).catch((error: unknown) => {
          throw this.problem(path, 'written', error)
        })
      },
      discard: () => Promise.resolve(),
    }
  }

  /** An object is whole or not there. */
  clearBeside(): Promise<void> {
    return Promise.resolve()
  }

  private async isThere(path: string): Promise<boolean> {
    try {
      await this.client.send(new HeadObjectCommand(this.object(path)))
      return true
    } catch (error) {
      if (error instanceof S3ServiceException && error.$metadata.httpStatusCode === 404) return false
      throw this.problem(path, 'read', error)
    }
  }

  private object(path: string): { readonly Bucket: string; readonly Key: string } {
    return { Bucket: this.bucket, Key: `${this.prefix}${path}` }
  }

  private problem(path: string, what: string, error: unknown): UserProblem {
    if (error instanceof UserProblem) return error
    return new UserProblem(`“${this.address}/${path}” cannot be ${what}: ${inWords(error)}.`)
  }
}

const words: Readonly<Record<string, string>> = {
  NoSuchKey: 'there is no such file',
  NotFound: 'there is no such file',
  NoSuchBucket: 'there is no such bucket',
  AccessDenied: 'the storage refuses it',
  Forbidden: 'the storage refuses it',
  InvalidAccessKeyId: 'the storage does not know these credentials',
  SignatureDoesNotMatch: 'the storage does not accept these credentials',
  CredentialsProviderError: 'no credentials are set (AWS_ACCESS_KEY_ID and AWS_SECRET_ACCESS_KEY)',
  ECONNREFUSED: 'the storage does not answer',
  ENOTFOUND: 'there is no such storage',
}

function inWords(error: unknown): string {
  const { name = '', code = '' } = error as { name?: string; code?: string }
  return words[name] ?? words[code] ?? (name || 'something went wrong')
}

let client: S3Client | undefined

function clientOf(): S3Client {
  const endpoint = process.env['AWS_ENDPOINT_URL_S3'] ?? process.env['AWS_ENDPOINT_URL']
  client ??= new S3Client({
    region: process.env['AWS_REGION'] ?? 'us-east-1',
    requestChecksumCalculation: 'WHEN_REQUIRED',
    responseChecksumValidation: 'WHEN_REQUIRED',
    // A storage of one's own seldom has a name for each bucket.
    ...(endpoint === undefined ? {} : { endpoint, forcePathStyle: true }),
  })
  return client
}
