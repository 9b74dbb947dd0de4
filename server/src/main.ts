import { startServer } from './server'

const port = Number(process.env['PORT'] ?? 4173)
const address = await startServer({ port, host: process.env['HOST'] ?? '127.0.0.1' })
console.log(`Welkinar is open at ${address}`)
