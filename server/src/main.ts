import { startServer } from './server'

const port = Number(process.env['PORT'] ?? 4173)
const host = process.env['HOST'] ?? '127.0.0.1'
const redis = process.env['WELKINAR_REDIS']
const showsQueue = process.env['WELKINAR_QUEUE_PAGE'] === 'open'
try {
  console.log(`Welkinar is open at ${await startServer({ port, host, redis, showsQueue })}`)
} catch (error) {
  const { code, message } = error as NodeJS.ErrnoException
  const taken = `Port ${port} of ${host} is taken by another program; PORT=${port + 1} npm start takes another.`
  console.error(code === 'EADDRINUSE' ? taken : `Welkinar cannot be served: ${message}`)
  process.exitCode = 1
}
