/** An object storage for tests; the package has no types. */
declare module 's3rver' {
  export default class S3rver {
    constructor(options: {
      readonly port: number
      readonly address: string
      readonly silent: boolean
      readonly directory: string
      readonly configureBuckets: readonly { readonly name: string; readonly configs: readonly string[] }[]
    })
    run(): Promise<{ readonly port: number }>
    close(): Promise<void>
  }
}
