import { readFile } from 'node:fs/promises'
import { parentPort, workerData } from 'node:worker_threads'
import { RenderWorker, type CodecName } from '@welkinar/core/worker'
import { expose } from 'comlink'
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs'
import { codecPath, kernelsPath } from './modulePaths'

async function compile(path: string): Promise<WebAssembly.Module> {
  return WebAssembly.compile(await readFile(path))
}

if (!parentPort) throw new Error('This file runs in a worker thread.')
const loadCodec = (name: CodecName): Promise<WebAssembly.Module> => compile(codecPath(name))
const { cacheBytes } = workerData as { readonly cacheBytes: number }
expose(await RenderWorker.create(await compile(kernelsPath()), cacheBytes, loadCodec), nodeEndpoint(parentPort))
parentPort.postMessage('ready')
