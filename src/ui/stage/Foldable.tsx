import { type ReactNode, useEffect, useRef } from 'react'
import { Panel, type PanelImperativeHandle } from 'react-resizable-panels'
import { type Part, partFolded, store, useStore } from '../../app/store'

interface Props {
  part: Part
  /** Px: what it takes as long as no hand has given it another size. */
  size: number
  least: number
  most?: number | string
  children: ReactNode
}

/** A part of the workbench that can be folded away by key or by dragging its seam to the border, and comes back as it was. */
export function Foldable({ part, size, least, most, children }: Props) {
  const panel = useRef<PanelImperativeHandle>(null)
  const isFolded = useStore(s => s.room.folded.includes(part))
  const asked = useRef(size)
  const byHand = useRef(false)

  useEffect(() => {
    if (isFolded) panel.current?.collapse()
    else panel.current?.expand()
  }, [isFolded])

  useEffect(() => {
    if (byHand.current || isFolded) return
    asked.current = size
    panel.current?.resize(size)
  }, [size, isFolded])

  return (
    <Panel
      panelRef={panel}
      defaultSize={size}
      minSize={least}
      {...(most !== undefined && { maxSize: most })}
      collapsible
      collapsedSize={0}
      groupResizeBehavior="preserve-pixel-size"
      onResize={({ inPixels }, _, before) => {
        if (!before) return
        const folded = inPixels < 1
        if (folded !== store.getState().room.folded.includes(part))
          store.dispatch(partFolded({ part, isFolded: folded }))
        // A size that nobody has asked for is a hand's.
        if (!folded && before.inPixels >= 1 && Math.abs(inPixels - asked.current) > 2) byHand.current = true
      }}
    >
      {children}
    </Panel>
  )
}
