import { constants } from 'node:zlib'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { compression, defineAlgorithm } from 'vite-plugin-compression2'

const isolation = {
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
}

const brotli = (quality: number) => defineAlgorithm('brotliCompress', { params: { [constants.BROTLI_PARAM_QUALITY]: quality } })
/** What is large and loaded on need: the best quality would take half a minute for it. */
const codecs = /\.wasm$|(libheif|libraw|UTIF)[^/]*\.js$/

export default defineConfig({
  // The server sends the smaller files where the browser takes them.
  plugins: [
    react(),
    compression({ algorithms: [brotli(10)], include: /\.(js|css)$/, exclude: codecs, threshold: 1024 }),
    compression({ algorithms: [brotli(6)], include: codecs, threshold: 1024 }),
  ],
  worker: { format: 'es' },
  server: { headers: isolation },
  optimizeDeps: { exclude: ['@jsquash/jpeg', '@jsquash/png', '@jsquash/webp', '@jsquash/avif', '@welkinar/kernels'] },
  build: { target: 'es2022', assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
})
