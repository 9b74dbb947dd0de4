import type { Size } from '../../planes/grid'
import { fileFormats, type ExportFormat, type ExportOptions } from './registry'
import type { FileFormat } from './fileFormat'

/** Why a format cannot hold a picture of a size, in words for the person; undefined if it can. Known before anything is computed. */
export function sizeProblem({ format, depth }: Pick<ExportOptions, 'format' | 'depth'>, { width, height }: Size): string | undefined {
  const { name, limits }: FileFormat = fileFormats[format]
  const { mostWidth = Infinity, mostHeight = Infinity, mostBytes = Infinity } = limits
  if (width > mostWidth || height > mostHeight) {
    const sides = mostWidth === mostHeight ? `${mostWidth} px wide and high` : `${mostWidth} px wide and ${mostHeight} px high`
    return `${article(name)} ${name} file is at most ${sides}; this one would be ${width} × ${height}.`
  }
  const bytes = (width * height * 3 * depth) / 8
  if (bytes <= mostBytes) return undefined
  return `${article(name)} ${name} file is at most ${Math.floor(mostBytes / 1e9)} GB large; this one could be ${(bytes / 1e9).toFixed(1)} GB.`
}

/** What of a photo's EXIF block does not get into a file, in words for the person; undefined if all that the format carries does. */
export function exifProblem(format: ExportFormat, exif: Uint8Array | undefined): string | undefined {
  const { name, carriesExif, limits }: FileFormat = fileFormats[format]
  if (!exif || !carriesExif || exif.length <= (limits.mostExif ?? Infinity)) return undefined
  const [own, most] = [exif.length, limits.mostExif ?? 0].map((bytes) => `${Math.ceil(bytes / 1000)} kB`)
  return `What the camera said is too long for ${article(name).toLowerCase()} ${name} file (${own}, and ${most} have room); it is left out. A PNG keeps it.`
}

function article(name: string): string {
  return /^[AEIO]/.test(name) ? 'An' : 'A'
}
