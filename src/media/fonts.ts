// Fonts that are open, and what was set in them lately.
import type { Letters, Wording } from '../core/graphic'
import type { OpenFont } from './open'
import type { Face } from './shaping'

/** Wordings that are kept set. */
const KEPT = 32

export interface FontStore {
  add(digest: string, font: OpenFont): void
  letters(wording: Wording): Promise<Letters | null>
}

export function fontStore(): FontStore {
  const fonts = new Map<string, OpenFont>()
  const faces = new Map<string, Promise<Face | null>>()
  const kept = new Map<string, Promise<Letters | null>>()

  async function faceOf(digest: string): Promise<Face | null> {
    const font = fonts.get(digest)
    if (!font) return null
    const { openFace } = await import('./shaping')
    return openFace(await font.tables())
  }

  async function set(wording: Wording): Promise<Letters | null> {
    const opened = await Promise.all(
      wording.fonts.map(digest => {
        const face = faces.get(digest) ?? faceOf(digest)
        faces.set(digest, face)
        return face
      }),
    )
    const found = opened.filter(face => face !== null)
    if (found.length < wording.fonts.length) return null
    const { setLetters } = await import('./shaping')
    return setLetters(found, wording)
  }

  return {
    add(digest, font) {
      fonts.set(digest, font)
      // What could not be set without it can be now.
      faces.delete(digest)
      kept.clear()
    },
    letters(wording) {
      const key = JSON.stringify(wording)
      const letters = kept.get(key) ?? set(wording)
      kept.delete(key)
      kept.set(key, letters)
      for (const old of kept.keys()) {
        if (kept.size <= KEPT) break
        kept.delete(old)
      }
      return letters
    },
  }
}
