// What was measured of a take, as thin curves on one axis of time.
import { Area, AreaChart, Line, LineChart, XAxis, YAxis } from 'recharts'
import type { Seen } from '../../core/plate'

const HEIGHT = 46
/** What a curve shows at least, so that noise does not look like movement: px, stops, shares of the picture. */
const LEAST_PX = 0.25
const LEAST_STOPS = 0.05
const LEAST_SHARE = 0.02

interface Point {
  frame: number
  x: number
  y: number
  light: number
  red: number
  blue: number
  share: number
  shade: number
}

const middle = (values: number[]): number => values.sort((a, b) => a - b)[values.length >> 1] ?? 0

function pointsOf(seen: readonly Seen[]): Point[] {
  const [cx, cy] = [middle(seen.map(s => s.movement.x)), middle(seen.map(s => s.movement.y))]
  return seen.map(({ movement, gain: [r, g, b], share, shade }, frame) => ({
    frame,
    x: movement.x - cx,
    y: movement.y - cy,
    light: Math.log2(g),
    red: Math.log2(r),
    blue: Math.log2(b),
    share: share * 100,
    shade: (share + shade) * 100,
  }))
}

/** How far numbers reach from nothing. */
const reachOf = (values: number[], least: number): number => Math.max(least, ...values.map(Math.abs))

function Label({ name, range }: { name: string; range: string }) {
  return (
    <p className="w-[118px] shrink-0 pr-3 text-xs leading-4 text-quiet">
      <span className="block text-ink">{name}</span>
      {range}
    </p>
  )
}

const still = { dot: false, activeDot: false, isAnimationActive: false, type: 'linear' } as const
const none = { top: 3, bottom: 3, left: 0, right: 0 }

/** `width`: px that the frames of the take fill; `count`: how many there are. */
export function Curves({ seen, count, width }: { seen: readonly Seen[]; count: number; width: number }) {
  const data = pointsOf(seen)
  const moved = reachOf(
    data.flatMap(p => [p.x, p.y]),
    LEAST_PX,
  )
  const lit = reachOf(
    data.flatMap(p => [p.light, p.red, p.blue]),
    LEAST_STOPS,
  )
  const full = reachOf(
    data.map(p => p.shade),
    LEAST_SHARE * 100,
  )
  const time = <XAxis hide dataKey="frame" type="number" domain={[0, Math.max(1, count - 1)]} />
  const own = { width, height: HEIGHT, data, margin: none, accessibilityLayer: false }
  return (
    <>
      <div className="flex items-center">
        <Label name="Camera" range={`± ${moved.toFixed(2)} px`} />
        <LineChart {...own}>
          {time}
          <YAxis hide domain={[-moved, moved]} />
          <Line {...still} dataKey="x" stroke="var(--ink)" strokeWidth={1.2} />
          <Line {...still} dataKey="y" stroke="var(--quiet)" strokeWidth={1.2} strokeDasharray="4 2" />
        </LineChart>
      </div>
      <div className="flex items-center">
        <Label name="Light" range={`± ${lit.toFixed(2)} stops`} />
        <LineChart {...own}>
          {time}
          <YAxis hide domain={[-lit, lit]} />
          <Line {...still} dataKey="red" stroke="var(--quiet)" strokeDasharray="4 2" />
          <Line {...still} dataKey="blue" stroke="var(--quiet)" strokeDasharray="1 2" />
          <Line {...still} dataKey="light" stroke="var(--ink)" strokeWidth={1.2} />
        </LineChart>
      </div>
      <div className="flex items-center">
        <Label name="Somebody" range={`up to ${full.toFixed(0)}%, shadow dashed`} />
        <AreaChart {...own}>
          {time}
          <YAxis hide domain={[0, full]} />
          <Area {...still} dataKey="shade" stroke="var(--quiet)" strokeDasharray="3 2" fill="none" />
          <Area {...still} dataKey="share" stroke="var(--ghost)" fill="var(--ghost)" fillOpacity={0.22} />
        </AreaChart>
      </div>
    </>
  )
}
