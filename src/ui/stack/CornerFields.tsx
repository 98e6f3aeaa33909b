import { editIn, store, useSend, useStore } from '../../app/store'
import { sample } from '../../core/keys'
import { type Corners, canHold, cornersAt, quadAt, quadOf } from '../../core/projective'
import type { Layer, Pin } from '../../core/shot'
import { KeyControl } from '../common/KeyControl'
import { NumberField } from '../common/NumberField'
import { CommandButton } from './CommandButton'

const CORNERS = [
  ['topLeft', 'Top left'],
  ['topRight', 'Top right'],
  ['bottomLeft', 'Bottom left'],
  ['bottomRight', 'Bottom right'],
] as const

const PATH = { of: 'corners' } as const

/** Where a layer's pinned corners lie at the playhead, px of its picture, and what they can ride on. */
export function CornerFields({ layer, pin }: { layer: Layer; pin: Pin }) {
  const send = useSend()
  const readOnly = useStore(s => s.view.readOnly)
  const frame = useStore(s => s.view.frame)
  const corners = sample(pin.corners, frame)
  const own = cornersAt(quadOf(pin.box))
  const change = (name: keyof Corners, part: Partial<Corners['topLeft']>, gesture: string) => {
    const { keying } = store.getState().view
    const next = { ...corners, [name]: { ...corners[name], ...part } }
    send(editIn(gesture, 'setValue', layer.id, PATH, frame, next, keying))
  }
  return (
    <div className="col-span-2 grid grid-cols-2 gap-x-2.5 gap-y-1.5 border-line border-t pt-2">
      <p className="col-span-2 flex items-center gap-2 text-xs">
        Corners
        <KeyControl layer={layer} path={PATH} name="corners" />
        {!canHold(quadAt(corners)) && <span className="text-warn">◆ Nothing flat looks like that: it is not seen</span>}
      </p>
      {CORNERS.flatMap(([name, said]) =>
        (['x', 'y'] as const).map(axis => (
          <NumberField
            key={`${name} ${axis}`}
            label={axis === 'x' ? said : 'down'}
            value={corners[name][axis]}
            digits={1}
            initial={own[name][axis]}
            disabled={readOnly}
            onChange={(value, gesture) => change(name, { [axis]: value }, gesture)}
          />
        )),
      )}
      <div className="col-span-2 flex flex-wrap gap-1 pt-1">
        <CommandButton id="ride-surface">Ride on the surface</CommandButton>
        <CommandButton id="ride-marks">Ride on four points</CommandButton>
        <CommandButton id="unpin-corners">Take the pins out</CommandButton>
      </div>
    </div>
  )
}
