declare module 'libheif-js/libheif-wasm/libheif-bundle.mjs' {
  export default function start(): object
}
