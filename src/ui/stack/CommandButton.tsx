import { commandOf, shownKeys } from '../../app/commands'
import { useStore } from '../../app/store'
import { useEngine } from '../stage/engine-context'

interface Props {
  id: string
  children: string
  /** What has to be done for the command to be meant so. */
  before?: () => void
}

/** A button in a card that runs a command on its layer. */
export function CommandButton({ id, children, before }: Props) {
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
      onClick={() => {
        if (!engine) return
        before?.()
        command.run(engine)
      }}
    >
      {children}
    </button>
  )
}
