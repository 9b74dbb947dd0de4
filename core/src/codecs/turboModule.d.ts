declare module '@cornerstonejs/codec-libjpeg-turbo-8bit/wasmjs' {
  /** The encoder of libjpeg-turbo. Objects live in the module's memory until `delete`. */
  interface JPEGEncoder {
    /** Interleaved samples to be filled in; valid until the next call. */
    getDecodedBuffer(frame: { width: number; height: number; bitsPerSample: 8; componentCount: 3; isSigned: false }): Uint8Array
    setQuality(quality: number): void
    /** 0: 4:4:4, 1: 4:2:2, 2: 4:2:0. */
    setSubSampling(sampling: 0 | 1 | 2): void
    setProgressive(progressive: boolean): void
    encode(): void
    getEncodedBuffer(): Uint8Array
    delete(): void
  }

  export interface TurboModule {
    readonly JPEGEncoder: new () => JPEGEncoder
  }

  interface Options {
    instantiateWasm(imports: WebAssembly.Imports, receive: (instance: WebAssembly.Instance) => void): WebAssembly.Exports
  }

  export default function createTurbo(options: Options): Promise<TurboModule>
}
