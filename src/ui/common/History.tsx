import { Redo2, Undo2 } from 'lucide-react'
import { redo, undo, useSend, useStore } from '../../app/store'
import { IconButton } from './Button'

/** What was done, taken back and done again. */
export function History() {
  const send = useSend()
  const past = useStore(s => s.project.past.some(p => p !== null))
  const future = useStore(s => s.project.future.length > 0)
  const readOnly = useStore(s => s.view.readOnly)
  return (
    <>
      <IconButton icon={Undo2} label="Undo" keys="Ctrl Z" disabled={!past || readOnly} onClick={() => send(undo())} />
      <IconButton
        icon={Redo2}
        label="Redo"
        keys="Ctrl Shift Z"
        disabled={!future || readOnly}
        onClick={() => send(redo())}
      />
    </>
  )
}
