import { config } from 'zod'

// The page forbids code made from text. To be imported before anything that makes schemas.
config({ jitless: true })
