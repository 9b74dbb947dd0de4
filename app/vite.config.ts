import { constants } from 'node:zlib'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { compression, defineAlgorithm } from 'vite-plugin-compression2'

const isolation = {
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
}

/** Fast: the best quality takes half a minute for the codecs. */
const brotli = defineAlgorithm('brotliCompress', { params: { [constants.BROTLI_PARAM_QUALITY]: 6 } })

export default defineConfig({
  // The server sends the smaller files where the browser takes them.
  plugins: [react(), compression({ algorithms: [brotli], include: /\.(js|css|wasm)$/, threshold: 1024 })],
  worker: { format: 'es' },
  server: { headers: isolation },
  optimizeDeps: { exclude: ['@jsquash/jpeg', '@jsquash/png', '@jsquash/webp', '@jsquash/avif', '@welkinar/kernels'] },
  build: { target: 'es2022', assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
})
