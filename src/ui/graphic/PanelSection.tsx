import { editIn, shotOf, useSend, useStore } from '../../app/store'
import type { Layer } from '../../core/shot'
import { CastFields } from './CastFields'
import { FillField } from './FillField'

/** What a panel is filled with; its matte gives it its form. */
export function PanelSection({ layer }: { layer: Layer }) {
  const send = useSend()
  const shot = useStore(shotOf)
  const readOnly = useStore(s => s.view.readOnly)
  const { source } = layer
  if (source.kind !== 'panel' || !shot) return null
  const disabled = readOnly || layer.locked
  const change = (changes: object, gesture: string) => send(editIn(gesture, 'changeGraphic', layer.id, changes))
  return (
    <div className="flex flex-col gap-2 pt-2">
      <FillField
        fill={source.fill}
        over={{ left: 0, top: 0, ...shot.size }}
        canBeNone={false}
        disabled={disabled}
        onChange={(fill, g) => change({ fill }, g)}
      />
      <CastFields
        border={source.border}
        shadow={source.shadow}
        usual={Math.max(1, Math.round(shot.size.height / 180))}
        disabled={disabled}
        onChange={change}
      />
      {layer.matte.length === 0 && (
        <p className="text-xs text-quiet">
          It covers the whole frame. A piece of matte gives it a form, and a line round it.
        </p>
      )}
    </div>
  )
}
