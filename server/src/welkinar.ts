import { leaveNothingHalf } from './stores/outputFile'
import { run } from './commands/run'

// The command line.

leaveNothingHalf()
const { code, message } = await run(process.argv.slice(2))
if (message !== undefined) console.error(message)
process.exitCode = code
