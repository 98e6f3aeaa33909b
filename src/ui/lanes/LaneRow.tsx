import { type CSSProperties, memo, useMemo } from 'react'
import { useHeld, useStore } from '../../app/store'
import { HEADS } from '../../app/time-scale'
import { isMade, keyedPaths, type Layer, valueName } from '../../core/shot'
import { BAR, Bar } from './Bar'
import { CutRow } from './CutRow'
import { KEY_ROW } from './KeyRow'
import { KeyRows } from './KeyRows'
import { LaneHead } from './LaneHead'
import { useLanes } from './lanes-context'

const isCutOut = (layer: Layer): boolean => layer.matte.some(isMade)

/** Px that a layer's lane is high: its bar and, opened, a row for each value that has keys. */
export const laneHeight = (layer: Layer, open: boolean): number =>
  BAR + 4 + (open ? (keyedPaths(layer).length + (isCutOut(layer) ? 1 : 0)) * KEY_ROW : 0)

interface Props {
  layer: Layer
  top: number
  onCarry: (layer: string, dy: number, gesture: string) => void
}

/** What a hand slides is moved as one piece, by px; a bar that begins before the view keeps its writing in view (`--slid`). */
const slidStyle = (px: number, x: number): CSSProperties => ({
  transform: `translateX(${px}px)`,
  willChange: 'transform',
  ...(Math.min(x, x + px) < 0 && { '--slid': `${px}px` }),
})

/** A layer in time: its head, its bar, and when its card is open a row for each value that has keys. */
export const LaneRow = memo(function LaneRow({ layer: written, top, onCarry }: Props) {
  const held = useHeld(written.id)
  const slid = held?.slid ?? null
  const layer = held && slid === null ? held.layer : written
  const { scale } = useLanes()
  const open = useStore(s => s.view.layer === layer.id)
  const paths = useMemo(() => (open ? keyedPaths(layer) : []), [open, layer])
  const isCut = open && isCutOut(layer)
  const cutTop = BAR + 4 + paths.length * KEY_ROW
  return (
    <li data-lane={layer.name} className="absolute inset-x-0" style={{ top, height: laneHeight(layer, open) }}>
      <LaneHead layer={layer} onCarry={onCarry} />
      <div className="absolute inset-y-0 right-0 overflow-x-clip" style={{ left: HEADS }}>
        <div
          className="absolute inset-0"
          style={slid === null ? undefined : slidStyle(slid * scale.perFrame, scale.x(layer.span.from))}
        >
          <Bar layer={layer} />
          {paths.length > 0 && <KeyRows layer={layer} paths={paths} top={BAR + 4} />}
          {isCut && <CutRow layer={layer} top={cutTop} />}
        </div>
      </div>
      {paths.map((path, i) => (
        <span
          key={JSON.stringify(path)}
          className="absolute left-2 truncate text-xs text-quiet"
          style={{ top: BAR + 4 + i * KEY_ROW, width: HEADS - 12, lineHeight: `${KEY_ROW}px` }}
        >
          {valueName(layer, path)}
        </span>
      ))}
      {isCut && (
        <span
          className="absolute left-2 truncate text-xs text-quiet"
          style={{ top: cutTop, width: HEADS - 12, lineHeight: `${KEY_ROW}px` }}
        >
          Cut-out, unsure
        </span>
      )}
    </li>
  )
})
