import { useEffect } from 'react'
import { chosenLayer, dialogOpened, partFolded, shotOf, store, useSend, useStore } from '../../app/store'
import { BesideContext } from './Ask'
import { AskCopies } from './AskCopies'
import { AskForm, AskMark } from './AskShot'
import { AskHold, AskLoop, AskSpeed, AskStutter } from './AskTime'

const ABOUT_LAYER = { hold: AskHold, loop: AskLoop, stutter: AskStutter, copies: AskCopies, speed: AskSpeed } as const

/** Keeps the room beside the picture open while a question stands there. */
function useRoomBeside(isAsked: boolean): void {
  const send = useSend()
  useEffect(() => {
    if (!isAsked || !store.getState().room.folded.includes('stack')) return
    send(partFolded({ part: 'stack', isFolded: false }))
    return () => void send(partFolded({ part: 'stack', isFolded: true }))
  }, [send, isAsked])
}

/** The question that a command asks, if one does; one about a layer stands in the room that is given, beside the picture. */
export function Asking({ beside }: { beside: HTMLElement | null }) {
  const send = useSend()
  const dialog = useStore(s => s.view.dialog)
  const shot = useStore(shotOf)
  const layer = useStore(chosenLayer)
  useRoomBeside(dialog !== null && dialog in ABOUT_LAYER)
  if (!dialog || !shot) return null
  const onClose = () => send(dialogOpened(null))
  if (dialog === 'form') return <AskForm shot={shot} onClose={onClose} />
  if (dialog === 'mark') return <AskMark shot={shot} onClose={onClose} />
  const Question = ABOUT_LAYER[dialog]
  return (
    layer && (
      <BesideContext value={beside}>
        <Question layer={layer} shot={shot} onClose={onClose} />
      </BesideContext>
    )
  )
}
