import { edit, editIn, projectOf, shotOf, useSend, useStore } from '../../app/store'
import { type Blend, edits, type Layer } from '../../core/shot'
import { NumberField } from '../common/NumberField'
import { Toggle } from '../common/Toggle'
import { CommandButton } from './CommandButton'
import { CornerFields } from './CornerFields'
import { ValueField } from './ValueField'

const BLENDS: readonly Blend[] = ['normal', 'add', 'screen', 'multiply', 'lighten', 'darken', 'difference']

/** Where a layer lies, how large, how turned, how strong, and how it meets what is behind it. */
export function PlaceSection({ layer }: { layer: Layer }) {
  const send = useSend()
  const shot = useStore(shotOf)
  const takes = useStore(s => projectOf(s)?.takes) ?? []
  const readOnly = useStore(s => s.view.readOnly)
  const fixed = readOnly || layer.locked
  if (!shot) return null
  const size = edits.layerSize(layer, shot, takes)
  const place = { layer, path: { of: 'place' } } as const
  const anchor = (changes: { x?: number; y?: number }, gesture: string) =>
    send(editIn(gesture, 'setAnchor', layer.id, { ...layer.anchor, ...changes }))
  return (
    <div className="grid grid-cols-2 gap-x-2.5 gap-y-1.5 pt-2">
      <ValueField {...place} field="x" label="Across" digits={1} initial={shot.size.width / 2} />
      <ValueField {...place} field="y" label="Down" digits={1} initial={shot.size.height / 2} />
      <ValueField
        {...place}
        field="scale"
        label="Scale"
        factor={100}
        unit="%"
        digits={1}
        min={0.1}
        max={100_000}
        initial={100}
      />
      <ValueField {...place} field="angle" label="Turn" unit="°" digits={1} step={0.5} initial={0} />
      <NumberField
        label="Anchor across"
        value={layer.anchor.x}
        digits={1}
        initial={size.width / 2}
        disabled={fixed}
        onChange={(x, gesture) => anchor({ x }, gesture)}
      />
      <NumberField
        label="Anchor down"
        value={layer.anchor.y}
        digits={1}
        initial={size.height / 2}
        disabled={fixed}
        onChange={(y, gesture) => anchor({ y }, gesture)}
      />
      <ValueField
        layer={layer}
        path={{ of: 'opacity' }}
        label="Opacity"
        factor={100}
        unit="%"
        min={0}
        max={100}
        initial={100}
      />
      <label className="flex items-center justify-between gap-2 text-xs text-quiet">
        Blend
        <select
          value={layer.blend}
          disabled={fixed}
          onChange={event => send(edit('blendLayer', layer.id, event.target.value as Blend))}
          className="w-[86px] rounded-md bg-ground px-1 py-1 text-ink"
        >
          {BLENDS.map(b => (
            <option key={b} value={b}>
              {b}
            </option>
          ))}
        </select>
      </label>
      <Toggle
        label="Flip left and right"
        on={layer.flip.across}
        disabled={fixed}
        onChange={() => send(edit('flipLayers', [layer.id], 'across'))}
      />
      <Toggle
        label="Top and bottom"
        on={layer.flip.down}
        disabled={fixed}
        onChange={() => send(edit('flipLayers', [layer.id], 'down'))}
      />
      <div className="col-span-2 flex gap-1 pt-1">
        <CommandButton id="fit-layer">Fit</CommandButton>
        <CommandButton id="fill-layer">Fill</CommandButton>
      </div>
      <div className="col-span-2 flex gap-1">
        <CommandButton id="ride-layer">Ride on a point</CommandButton>
        {!layer.pin && <CommandButton id="pin-corners">Pin its corners</CommandButton>}
      </div>
      {layer.pin && <CornerFields layer={layer} pin={layer.pin} />}
    </div>
  )
}
