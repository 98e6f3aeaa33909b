import { Command as List } from 'cmdk'
import { Dialog } from 'radix-ui'
import { COMMANDS, shownKeys } from '../../app/commands'
import { findingSet, useSend, useStore } from '../../app/store'
import { useEngine } from './engine-context'

/** How well a command's words begin like those that were typed: every typed word has to begin one of them. */
function matches(name: string, typed: string): number {
  const words = name.toLowerCase().split(/[^\p{L}\p{N}]+/u)
  const wanted = typed.toLowerCase().trim().split(/\s+/)
  const at = wanted.map(w => words.findIndex(word => word.startsWith(w)))
  if (at.includes(-1)) return 0
  return 1 / (1 + Math.min(...at))
}

/** Every command by name: typed, chosen, done. Those that do not apply now stay readable. */
export function Finder() {
  const send = useSend()
  const engine = useEngine()
  const open = useStore(s => s.view.finding)
  const close = () => send(findingSet(false))
  const groups = [...new Set(COMMANDS.map(c => c.group))]
  return (
    <Dialog.Root open={open} onOpenChange={next => send(findingSet(next))}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-24 left-1/2 z-50 w-[480px] -translate-x-1/2 overflow-hidden rounded-2xl border border-line bg-card shadow-2xl shadow-black/60"
        >
          <Dialog.Title className="sr-only">Find a command</Dialog.Title>
          <List label="Find a command" filter={matches}>
            <List.Input
              placeholder="What is to be done?"
              className="w-full border-b border-line bg-transparent px-4 py-3 font-display text-lg outline-none"
            />
            <List.List className="max-h-[50vh] overflow-y-auto p-1.5">
              <List.Empty className="px-3 py-4 text-quiet">No command is called anything like that.</List.Empty>
              {groups.map(group => (
                <List.Group
                  key={group}
                  heading={group}
                  className="[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-xs [&_[cmdk-group-heading]]:text-quiet"
                >
                  {COMMANDS.filter(c => c.group === group && c.id !== 'find').map(command => {
                    const off = !engine || (open && command.applies?.() === false)
                    return (
                      <List.Item
                        key={command.id}
                        value={`${command.name} ${command.group}`}
                        disabled={off}
                        onSelect={() => {
                          close()
                          if (engine) command.run(engine)
                        }}
                        className="flex cursor-default items-center gap-4 rounded-lg px-3 py-1 data-[disabled=true]:opacity-40 data-[selected=true]:bg-raised"
                      >
                        <span className="flex-1">{command.name}</span>
                        <span className="text-xs text-quiet">{shownKeys(command.keys)}</span>
                      </List.Item>
                    )
                  })}
                </List.Group>
              ))}
            </List.List>
          </List>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
