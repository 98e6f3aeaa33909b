import { useEffect, useRef } from 'react'
import { editIn, lastGesture, store } from '../../app/store'
import { type Layer, newId } from '../../core/shot'
import { letteringReach } from '../../core/source'
import { useLetters } from './use-letters'

/** Lets letters that are pinned and come to reach beyond what was pinned of them be seen whole, in the same step as the change that made them. */
export function PinnedLetters({ layer }: { layer: Layer }) {
  const { source, pin } = layer
  const letters = useLetters(layer)
  // What was so when the layer was chosen is left alone.
  const first = useRef(source)
  useEffect(() => {
    if (source === first.current || source.kind !== 'lettering' || !letters || !pin) return
    const { left, top, right, bottom } = letteringReach(source, letters)
    const { box } = pin
    if (left >= box.left && top >= box.top && right <= box.right && bottom <= box.bottom) return
    const gesture = lastGesture(store.getState()) ?? newId()
    store.dispatch(editIn(gesture, 'widenPin', layer.id, { left, top, right, bottom }))
  }, [source, pin, letters, layer.id])
  return null
}
