import { useEffect, useState } from 'react'
import { type Letters, lettersFrame } from '../../core/graphic'
import type { Layer } from '../../core/shot'
import { layoutAt, wordingOf } from '../../core/source'
import { useEngine } from '../stage/engine-context'

/** The letters of a layer as its fonts set them; those of the text before while others are being set, null of other layers, and where a font is missing. */
export function useLetters({ source }: Pick<Layer, 'source'>): Letters | null {
  const engine = useEngine()
  const [letters, setLetters] = useState<Letters | null>(null)
  const wording = source.kind === 'lettering' ? JSON.stringify(wordingOf(source)) : null
  useEffect(() => {
    if (!engine || !wording) return setLetters(null)
    let isWanted = true
    engine.letters(JSON.parse(wording)).then(
      found => isWanted && setLetters(found),
      error => console.error('Letters could not be set:', error),
    )
    return () => {
      isWanted = false
    }
  }, [engine, wording])
  return letters
}

/** What the letters of a layer lie within at a frame, in px of the layer; null where that is not known. */
export function useLettersFrame(layer: Layer, frame: number) {
  const letters = useLetters(layer)
  const { source } = layer
  return letters && source.kind === 'lettering' ? lettersFrame(letters, layoutAt(source, frame)) : null
}
