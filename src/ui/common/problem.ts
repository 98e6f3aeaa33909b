import { toast } from 'sonner'

/** Says a sentence about something that went wrong; it stays until it is read. */
export const sayProblem = (sentence: string): void => {
  toast.error(sentence, { duration: Number.POSITIVE_INFINITY, closeButton: true })
}
