import { useState } from 'react'
import { edit, useSend, useStore } from '../../app/store'
import type { Layer } from '../../core/shot'

/** A layer's name; a double click lets it be typed. */
export function LayerName({ layer }: { layer: Layer }) {
  const send = useSend()
  const readOnly = useStore(s => s.view.readOnly)
  const [typed, setTyped] = useState<string | null>(null)
  if (typed === null) {
    return (
      // biome-ignore lint/a11y/noStaticElementInteractions: renaming is also in the card's own field when opened by keyboard
      <span className="block truncate font-bold" onDoubleClick={() => !readOnly && setTyped(layer.name)}>
        {layer.name}
      </span>
    )
  }
  const commit = () => {
    if (typed.trim()) send(edit('renameLayer', layer.id, typed.trim()))
    setTyped(null)
  }
  return (
    <input
      // biome-ignore lint/a11y/noAutofocus: the person has just asked to type here
      autoFocus
      aria-label="Name of the layer"
      className="w-full rounded bg-ground px-1 font-bold"
      value={typed}
      onChange={event => setTyped(event.target.value)}
      onBlur={commit}
      onPointerDown={event => event.stopPropagation()}
      onKeyDown={event => {
        // The card's head would take these for carrying the card.
        event.stopPropagation()
        if (event.key === 'Enter') commit()
        if (event.key === 'Escape') setTyped(null)
      }}
    />
  )
}
