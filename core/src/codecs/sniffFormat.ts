/** Formats that photos come in. */
export type PhotoFormat = 'jpeg' | 'png' | 'webp' | 'avif' | 'heic' | 'tiff' | 'raw'

/** What a file is by its first bytes, or a phrase that says what it is instead. */
export type Sniffed = { readonly format: PhotoFormat } | { readonly not: string }

const RAW_ENDINGS = /\.(3fr|arw|cr2|cr3|crw|dcr|dng|erf|iiq|kdc|mef|mos|mrw|nef|nrw|orf|pef|raf|raw|rw2|rwl|sr2|srf|srw|x3f)$/i

/** Reads the signature of a file. The ending decides only between TIFF pictures and the raw files of cameras that look like them. */
export function sniffFormat(bytes: Uint8Array, fileName: string): Sniffed {
  const text = (from: number, length: number): string => String.fromCharCode(...bytes.subarray(from, from + length))
  const head = [...bytes.subarray(0, 4)].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  if (bytes.length === 0) return { not: 'empty' }
  if (RAW_ENDINGS.test(fileName) || text(0, 15) === 'FUJIFILMCCD-RAW' || /^II(RO|RS|U\0)/.test(text(0, 4))) return { format: 'raw' }
  if (head.startsWith('ffd8ff')) return { format: 'jpeg' }
  if (head === '89504e47') return { format: 'png' }
  if (text(0, 4) === 'RIFF' && text(8, 4) === 'WEBP') return { format: 'webp' }
  if (text(4, 4) === 'ftyp') return sniffBoxes(text(8, Math.min(56, bytes.length - 8)))
  if (['49492a00', '4d4d002a', '49492b00', '4d4d002b'].includes(head)) return { format: 'tiff' }
  if (text(0, 3) === 'GIF') return { not: 'a GIF file, which is not supported' }
  return { not: 'not a picture of a known kind' }
}

function sniffBoxes(brands: string): Sniffed {
  if (brands.startsWith('crx ')) return { format: 'raw' }
  if (brands.includes('avis')) return { not: 'an animation; save a single picture of it and open that' }
  if (brands.includes('avif')) return { format: 'avif' }
  if (/hevc|hevx/.test(brands) && !/hei[cxsm]/.test(brands)) return { not: 'a sequence of pictures; save a single one of it and open that' }
  if (/hei[cxsm]|mif1/.test(brands)) return { format: 'heic' }
  return { not: 'not a picture of a known kind' }
}
