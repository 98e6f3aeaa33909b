import { useHotkeys } from 'react-hotkeys-hook'
import { COMMANDS, type Command } from '../../app/commands'
import { store, typingSet } from '../../app/store'
import { useEngine } from './engine-context'
import { spacePan } from './space-pan'

/** Somebody is typing, or a control needs the key itself. */
const busy = (target: EventTarget | null, key: string): boolean => {
  const element = target as HTMLElement | null
  if (!element?.closest) return false
  if (element.closest('input, textarea, [role=menu], [role=alertdialog], [role=dialog]')) return true
  if (key === 'space' || key === 'enter')
    return (
      element.closest('button, a, [role=switch]') !== null && document.activeElement?.matches(':focus-visible') === true
    )
  return (key === 'up' || key === 'down') && element.closest('[role=radiogroup], [role=group]') !== null
}

function Shortcut({ command }: { command: Command }) {
  const engine = useEngine()
  const play = command.id === 'play'
  useHotkeys(
    command.keys ?? '',
    event => {
      // Letters are about to be typed: until they can be, keys are letters, too.
      if (store.getState().view.typing) {
        if (command.keys === 'escape') store.dispatch(typingSet(false))
        return
      }
      if (!engine || busy(event.target, command.keys ?? '') || command.applies?.() === false) return
      // Space plays when it is let go, unless it was held to pan.
      if (play && spacePan.used) return
      event.preventDefault()
      command.run(engine)
    },
    { keyup: play, keydown: !play, enableOnFormTags: true },
    [engine, command],
  )
  return null
}

/** Binds commands to their keys while a shot is open: every one, or only some. */
export const Shortcuts = ({ only }: { only: readonly string[] | null }) =>
  COMMANDS.filter(c => c.keys && !c.native && (only?.includes(c.id) ?? true)).map(command => (
    <Shortcut key={command.id} command={command} />
  ))
