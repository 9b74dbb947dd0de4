import { readFile } from 'node:fs/promises'
import { parentPort } from 'node:worker_threads'
import { RenderWorker, type CodecName } from '@welkinar/core/worker'
import { expose } from 'comlink'
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs'
import { codecPath, kernelsPath } from './modulePaths'

const CACHE_BYTES = 256 * 1024 * 1024

async function compile(path: string): Promise<WebAssembly.Module> {
  return WebAssembly.compile(await readFile(path))
}

if (!parentPort) throw new Error('This file runs in a worker thread.')
const loadCodec = (name: CodecName): Promise<WebAssembly.Module> => compile(codecPath(name))
expose(await RenderWorker.create(await compile(kernelsPath()), CACHE_BYTES, loadCodec), nodeEndpoint(parentPort))
parentPort.postMessage('ready')
