import { ContextMenu } from 'radix-ui'
import { type MouseEvent, type ReactElement, useState } from 'react'
import { commandOf, shownKeys } from '../../app/commands'
import { chosenIds, layerChosen, store } from '../../app/store'
import { useEngine } from '../stage/engine-context'

interface Props {
  /** Ids of commands, `-` for a line between them. Those that do not apply now are left out. */
  commands: readonly string[]
  children: ReactElement
}

function Items({ commands }: { commands: readonly string[] }) {
  const engine = useEngine()
  const shown = commands.filter(id => id === '-' || commandOf(id).applies?.() !== false)
  // No line first, last or after another line.
  const tidy = shown.filter((id, i) => id !== '-' || (i > 0 && i < shown.length - 1 && shown[i + 1] !== '-'))
  return tidy.map((id, i) => {
    // biome-ignore lint/suspicious/noArrayIndexKey: lines have no other name
    if (id === '-') return <ContextMenu.Separator key={`line ${i}`} className="my-1 h-px bg-line" />
    const command = commandOf(id)
    return (
      <ContextMenu.Item
        key={id}
        onSelect={() => engine && command.run(engine)}
        className="flex cursor-default items-center gap-6 rounded-lg px-2.5 py-0.5 outline-none data-[highlighted]:bg-raised"
      >
        <span className="flex-1">{command.name}</span>
        <span className="text-xs text-quiet">{shownKeys(command.keys)}</span>
      </ContextMenu.Item>
    )
  })
}

/** Commands about the layer that is pressed with the other button: the one that the nearest `data-layer-id` names. */
export function CommandMenu({ commands, children }: Props) {
  const [open, setOpen] = useState(false)
  const aim = (event: MouseEvent) => {
    const layer = (event.target as Element).closest<HTMLElement>('[data-layer-id]')?.dataset.layerId
    if (!layer) event.preventDefault()
    else if (!chosenIds(store.getState()).includes(layer)) store.dispatch(layerChosen(layer))
  }
  return (
    <ContextMenu.Root onOpenChange={setOpen}>
      <ContextMenu.Trigger asChild onContextMenu={aim}>
        {children}
      </ContextMenu.Trigger>
      <ContextMenu.Portal>
        <ContextMenu.Content className="z-40 max-h-[90vh] min-w-52 overflow-y-auto rounded-xl border border-line bg-card p-1 shadow-xl shadow-black/50">
          {open && <Items commands={commands} />}
        </ContextMenu.Content>
      </ContextMenu.Portal>
    </ContextMenu.Root>
  )
}
