declare module 'libraw-wasm/dist/libraw.js' {
  interface RawSettings {
    readonly outputBps: 8 | 16
    readonly outputColor: number
    readonly useCameraWb: boolean
    readonly noAutoBright: boolean
    readonly adjustMaximumThr: number
    readonly userQual: number
    readonly halfSize: boolean
  }

  /** One raw file. Its methods throw what is no `Error` where LibRaw fails. */
  interface LibRaw {
    open(bytes: Uint8Array, settings: RawSettings): void
    metadata(full: boolean): { readonly width: number; readonly height: number }
    imageData(): {
      readonly width: number
      readonly height: number
      readonly colors: number
      readonly data: Uint8Array | Uint16Array
    }
    delete(): void
  }

  export interface LibRawModule {
    readonly LibRaw: new () => LibRaw
  }

  export default function create(options: {
    instantiateWasm(
      imports: WebAssembly.Imports,
      receive: (instance: WebAssembly.Instance, module: WebAssembly.Module) => void,
    ): WebAssembly.Exports
    print(text: string): void
    printErr(text: string): void
  }): Promise<LibRawModule>
}
