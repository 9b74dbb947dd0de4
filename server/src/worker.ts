import { readFile } from 'node:fs/promises'
import { parentPort } from 'node:worker_threads'
import { RenderWorker, wasmCodecs } from '@welkinar/core/worker'
import { expose } from 'comlink'
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs'
import { codecPath, kernelsPath } from './modulePaths'
import { nativeCodecs, nativeDeflate } from './nativeCodecs'

async function compile(path: string): Promise<WebAssembly.Module> {
  return WebAssembly.compile(await readFile(path))
}

if (!parentPort) throw new Error('This file runs in a worker thread.')
const codecs = nativeCodecs(wasmCodecs((name) => compile(codecPath(name)), nativeDeflate))
expose(await RenderWorker.create(await compile(kernelsPath()), codecs), nodeEndpoint(parentPort))
parentPort.postMessage('ready')
