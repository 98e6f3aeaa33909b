// A box that is drawn over lanes or rows of keys to choose what lies in it.

interface Place {
  x: number
  y: number
}

export interface Box {
  left: number
  top: number
  right: number
  bottom: number
}

export const boxBetween = (a: Place, b: Place): Box => ({
  left: Math.min(a.x, b.x),
  right: Math.max(a.x, b.x),
  top: Math.min(a.y, b.y),
  bottom: Math.max(a.y, b.y),
})

/** The box itself, `left` px from where its places are told from. */
export const BoxMark = ({ box, left = 0 }: { box: Box; left?: number }) => (
  <span
    className="pointer-events-none absolute z-20 border border-lime bg-lime/10"
    style={{ left: left + box.left, top: box.top, width: box.right - box.left, height: box.bottom - box.top }}
  />
)
