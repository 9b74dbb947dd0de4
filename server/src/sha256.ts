import { createHash } from 'node:crypto'

/** SHA-256 (FIPS 180-4) in hexadecimal digits. */
export function sha256(bytes: Uint8Array | string): string {
  return createHash('sha256').update(bytes).digest('hex')
}
