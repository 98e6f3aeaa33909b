import { ArrowUp, Eye, EyeOff, Plus, Trash2 } from 'lucide-react'
import { edit, useSend, useStore } from '../../app/store'
import { freshValues, LOOK_KINDS, LOOKS, type Look } from '../../core/look'
import { type Layer, newId } from '../../core/shot'
import { IconButton } from '../common/Button'
import { Menu, MenuItem } from '../common/Menu'
import { CommandButton } from './CommandButton'
import { ValueField } from './ValueField'

function LookCard({ layer, look, index }: { layer: Layer; look: Look; index: number }) {
  const send = useSend()
  const fixed = useStore(s => s.view.readOnly) || layer.locked
  const { name, values } = LOOKS[look.kind]
  return (
    <li className="rounded-lg bg-panel px-2 py-1.5">
      <header className="flex items-center gap-1">
        <h4 className="flex-1 text-xs font-bold">{name}</h4>
        <IconButton
          icon={ArrowUp}
          size="tiny"
          label={`Do ${name} earlier`}
          disabled={fixed || index === 0}
          onClick={() => send(edit('moveLook', layer.id, look.id, index - 1))}
        />
        <IconButton
          icon={look.on ? Eye : EyeOff}
          size="tiny"
          label={look.on ? `Take ${name} away for now` : `Use ${name} again`}
          disabled={fixed}
          onClick={() => send(edit('switchLook', layer.id, look.id, !look.on))}
        />
        <IconButton
          icon={Trash2}
          size="tiny"
          label={`Delete ${name}`}
          disabled={fixed}
          onClick={() => send(edit('removeLook', layer.id, look.id))}
        />
      </header>
      <div className={`grid grid-cols-2 gap-x-2.5 gap-y-1.5 pt-1 ${look.on ? '' : 'opacity-50'}`}>
        {Object.entries(values).map(([of, { name: label, least, most, initial, ...number }]) => (
          <ValueField
            key={of}
            layer={layer}
            path={{ of, look: look.id }}
            label={label}
            min={least}
            max={most}
            initial={initial}
            {...number}
          />
        ))}
      </div>
    </li>
  )
}

/** What is done to a layer's picture, in order. */
export function LooksSection({ layer }: { layer: Layer }) {
  const send = useSend()
  const fixed = useStore(s => s.view.readOnly) || layer.locked
  const add = (kind: Look['kind']) =>
    send(edit('addLook', layer.id, { id: newId(), kind, on: true, values: freshValues(kind) }))
  return (
    <div className="flex flex-col gap-1.5 pt-2">
      <p className="text-xs text-quiet">
        {layer.looks.length === 0 ? 'Nothing is done to its picture.' : 'Done to its picture, in this order.'}
      </p>
      <header className="flex items-center gap-2">
        <CommandButton id="match-behind">Match the light</CommandButton>
        <CommandButton id="match-grain">Match the grain</CommandButton>
        <span className="flex-1" />
        <Menu trigger={<IconButton icon={Plus} label="Add a look" size="small" disabled={fixed} />}>
          {LOOK_KINDS.map(kind => (
            <MenuItem key={kind} onSelect={() => add(kind)}>
              <span className="flex flex-col">
                {LOOKS[kind].name}
                <span className="text-xs text-quiet">{LOOKS[kind].use}</span>
              </span>
            </MenuItem>
          ))}
        </Menu>
      </header>
      <ul className="flex flex-col gap-1.5">
        {layer.looks.map((look, index) => (
          <LookCard key={look.id} layer={layer} look={look} index={index} />
        ))}
      </ul>
    </div>
  )
}
