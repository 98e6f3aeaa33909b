import { useEffect, useRef } from 'react'
import { editIn, lastGesture, store } from '../../app/store'
import { type Layer, newId } from '../../core/shot'
import { letteringReach, wordingOf } from '../../core/source'
import { useEngine } from '../stage/engine-context'

/** Lets letters that are pinned and come to reach beyond what was pinned of them be seen whole, in the same step as the change that made them. */
export function PinnedLetters({ layer }: { layer: Layer }) {
  const { source, pin } = layer
  const engine = useEngine()
  // What was so when the layer was chosen is left alone.
  const first = useRef(source)
  useEffect(() => {
    if (source === first.current || source.kind !== 'lettering' || !engine || !pin) return
    let isWanted = true
    // Those of this very text: by those of the one before, what was taken back would be widened anew.
    const measure = async () => {
      const letters = await engine.letters(wordingOf(source))
      if (!isWanted || !letters) return
      const { left, top, right, bottom } = letteringReach(source, letters)
      const { box } = pin
      if (left >= box.left && top >= box.top && right <= box.right && bottom <= box.bottom) return
      const gesture = lastGesture(store.getState()) ?? newId()
      store.dispatch(editIn(gesture, 'widenPin', layer.id, { left, top, right, bottom }))
    }
    measure().catch(error => console.error('Pinned letters could not be measured:', error))
    return () => {
      isWanted = false
    }
  }, [source, pin, engine, layer.id])
  return null
}
