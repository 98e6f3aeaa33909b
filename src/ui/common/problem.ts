import { toast } from 'sonner'

const STAYS = { duration: Number.POSITIVE_INFINITY, closeButton: true }

/** Says a sentence about something that went wrong; it stays until it is read. */
export const sayProblem = (sentence: string): void => {
  toast.error(sentence, STAYS)
}

/** The same with a way out beside it. */
export const offerInstead = (sentence: string, label: string, onClick: () => void): void => {
  toast.error(sentence, { ...STAYS, action: { label, onClick } })
}

/** Milliseconds that something good to know stays: long enough to be read twice. */
const READ = 20_000

/** Says something that is good to know. */
export const sayNote = (sentence: string): void => {
  toast.message(sentence, { ...STAYS, duration: READ })
}
