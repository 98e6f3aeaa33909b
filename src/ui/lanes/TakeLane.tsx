import { LogIn, LogOut, Plus, X } from 'lucide-react'
import { useMemo, useRef } from 'react'
import { keepAct, markIn, markOut } from '../../app/engine/acts'
import { placeActs, placeTake } from '../../app/engine/place'
import { stagedShot, takeChanged, takeClosed, takeOf, useSend, useStore } from '../../app/store'
import { HEADS, type TimeScale } from '../../app/time-scale'
import type { Act, Stretch, Take } from '../../core/shot'
import { lengthText, secondsToFrame } from '../../core/time'
import { IconButton, TextButton } from '../common/Button'
import { TypedName } from '../common/TypedName'
import { BarFilm } from './BarFilm'
import { LanesContext } from './lanes-context'
import { Playhead } from './Playhead'
import { Ruler } from './Ruler'
import { useLanesZoom } from './use-lanes-zoom'

const FILM = 64

function Part({
  part,
  scale,
  rate,
  tone,
}: {
  part: Stretch
  scale: TimeScale
  rate: { num: number; den: number }
  tone: string
}) {
  const from = scale.x(secondsToFrame(part.from, rate))
  const to = scale.x(Math.round((part.to * rate.num) / rate.den))
  return (
    <span className={`pointer-events-none absolute ${tone}`} style={{ left: from, width: Math.max(2, to - from) }} />
  )
}

function ActRow({ take, act, onPlace }: { take: Take; act: Act; onPlace: () => void }) {
  const send = useSend()
  const change = (acts: Act[]) => send(takeChanged({ digest: take.digest, acts }))
  const rate = take.picture?.kind === 'film' ? take.picture.rate : { num: 25, den: 1 }
  return (
    <li className="flex items-center gap-1 rounded-full bg-card py-0.5 pr-1 pl-3">
      <TypedName
        label="Name of the act"
        className="field-sizing-content max-w-40 min-w-12 rounded bg-transparent px-1"
        name={act.name}
        onDone={name => change(take.acts.map(a => (a.id === act.id ? { ...a, name } : a)))}
      />
      <span className="text-xs text-quiet">
        {lengthText(Math.round((act.to - act.from) * (rate.num / rate.den)), rate)}
      </span>
      <IconButton icon={Plus} size="small" label={`Place ${act.name}`} onClick={onPlace} />
      <IconButton
        icon={X}
        size="small"
        label={`Forget ${act.name}`}
        onClick={() => change(take.acts.filter(a => a.id !== act.id))}
      />
    </li>
  )
}

/** A take that is looked at alone: its whole length, its in and out, and the acts that were found in it. */
export function TakeLane({ digest }: { digest: string }) {
  const send = useSend()
  const host = useRef<HTMLDivElement>(null)
  const take = useStore(s => takeOf(s, digest))
  const shot = useStore(stagedShot)
  const readOnly = useStore(s => s.view.readOnly)
  const scale = useLanesZoom(host, shot?.length ?? 1)
  const shared = useMemo(() => ({ scale, showMeeting: () => {} }), [scale])
  if (!take || !shot) return null
  const [layer] = shot.layers
  const { marked } = take
  const off = readOnly || take.picture?.kind === 'still'
  return (
    <LanesContext value={shared}>
      <section aria-label="The take alone" className="relative flex h-full min-h-0 flex-col bg-ground">
        <div ref={host} className="relative" style={{ height: 26 + FILM + 12 }}>
          <div className="absolute inset-x-0 top-0 h-[26px] border-b border-line">
            <div className="absolute inset-y-0 right-0 overflow-x-clip" style={{ left: HEADS }}>
              <Ruler />
            </div>
          </div>
          <div className="absolute right-0 overflow-x-clip" style={{ left: HEADS, top: 30, height: FILM + 8 }}>
            <div className="absolute" style={{ left: scale.x(0), width: shot.length * scale.perFrame, height: FILM }}>
              {layer && <BarFilm layer={layer} rate={shot.rate} scale={scale} height={FILM} />}
            </div>
            {take.acts.map(act => (
              <Part key={act.id} part={act} scale={scale} rate={shot.rate} tone="bottom-0 h-1 rounded-full bg-ghost" />
            ))}
            {marked && (
              <Part
                part={marked}
                scale={scale}
                rate={shot.rate}
                tone="top-0 h-16 rounded-md border-2 border-lime bg-lime/10"
              />
            )}
          </div>
          <Playhead />
          <span className="absolute top-9 left-2 truncate text-xs text-quiet" style={{ width: HEADS - 16 }}>
            {take.name}
          </span>
        </div>
        <div className="flex flex-wrap items-center gap-2 overflow-y-auto px-3 py-2">
          <TextButton disabled={off} onClick={markIn} title="I">
            <span className="flex items-center gap-1.5">
              <LogIn size={14} /> In here
            </span>
          </TextButton>
          <TextButton disabled={off} onClick={markOut} title="O">
            <span className="flex items-center gap-1.5">
              <LogOut size={14} /> Out here
            </span>
          </TextButton>
          <TextButton disabled={off || !marked} onClick={keepAct}>
            Keep as an act
          </TextButton>
          <TextButton main disabled={readOnly} onClick={() => placeTake(take, { stretch: marked })}>
            {marked ? 'Place this part' : 'Place the take'}
          </TextButton>
          <ul className="flex flex-wrap gap-1.5" aria-label="Acts">
            {take.acts.map(act => (
              <ActRow key={act.id} take={take} act={act} onPlace={() => placeActs(take, [act])} />
            ))}
          </ul>
          {take.acts.length > 1 && (
            <TextButton main disabled={readOnly} onClick={() => placeActs(take, take.acts)}>
              Place all {take.acts.length}, starting together
            </TextButton>
          )}
          <span className="flex-1" />
          <TextButton onClick={() => send(takeClosed())}>Back to the shot</TextButton>
        </div>
      </section>
    </LanesContext>
  )
}
