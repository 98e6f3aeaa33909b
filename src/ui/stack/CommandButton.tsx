import { commandOf, shownKeys } from '../../app/commands'
import { useStore } from '../../app/store'
import { useEngine } from '../stage/engine-context'

/** A button in a card that runs a command on its layer. */
export function CommandButton({ id, children }: { id: string; children: string }) {
  const engine = useEngine()
  const readOnly = useStore(s => s.view.readOnly)
  const command = commandOf(id)
  // It depends on much: asked at every change, drawn anew when the answer is another one.
  const applies = useStore(() => command.applies?.() !== false)
  return (
    <button
      type="button"
      disabled={!engine || readOnly || !applies}
      title={`${command.name} ${shownKeys(command.keys)}`.trim()}
      className="rounded-full bg-raised px-2.5 py-0.5 text-xs text-ink"
      onClick={() => engine && command.run(engine)}
    >
      {children}
    </button>
  )
}
