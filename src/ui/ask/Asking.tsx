import { chosenLayer, dialogOpened, shotOf, useSend, useStore } from '../../app/store'
import { AskCopies } from './AskCopies'
import { AskForm, AskMark } from './AskShot'
import { AskHold, AskLoop, AskSpeed, AskStutter } from './AskTime'

const ABOUT_LAYER = { hold: AskHold, loop: AskLoop, stutter: AskStutter, copies: AskCopies, speed: AskSpeed } as const

/** The question that a command asks, if one does. */
export function Asking() {
  const send = useSend()
  const dialog = useStore(s => s.view.dialog)
  const shot = useStore(shotOf)
  const layer = useStore(chosenLayer)
  if (!dialog || !shot) return null
  const onClose = () => send(dialogOpened(null))
  if (dialog === 'form') return <AskForm shot={shot} onClose={onClose} />
  if (dialog === 'mark') return <AskMark shot={shot} onClose={onClose} />
  const Question = ABOUT_LAYER[dialog]
  return layer && <Question layer={layer} shot={shot} onClose={onClose} />
}
