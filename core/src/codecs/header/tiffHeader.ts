import { pagesOf, readTiff, tags } from '../tiff/tiffDirectory'
import { emptyHeader, soundTurn, usableProfile, type PhotoHeader } from './photoHeader'

/** What the first picture of a TIFF says. */
export function readTiffHeader(bytes: Uint8Array): PhotoHeader {
  const pages = pagesOf(readTiff(bytes))
  const [page] = pages
  if (!page) return emptyHeader
  return {
    ...emptyHeader,
    width: page.value(tags.width) ?? 0,
    height: page.value(tags.height) ?? 0,
    depth: page.value(tags.bits) ?? 1,
    turn: soundTurn(page.value(tags.orientation)),
    pages: pages.length,
    // ICC.1:2022, annex B.3.
    profile: usableProfile(page.bytes(tags.profile)),
  }
}
