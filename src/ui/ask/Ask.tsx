import { Dialog } from 'radix-ui'
import { createContext, type ReactNode, useContext, useRef } from 'react'
import { flushSync } from 'react-dom'

interface Props {
  title: string
  /** What will come of it, in a sentence or two. */
  note?: ReactNode
  action: string
  onDone: () => void
  onClose: () => void
  disabled?: boolean
  children?: ReactNode
  /** Another way out than doing it or not. */
  besides?: ReactNode
}

/** Where a question stands that is about what is seen: beside the picture, which it must not cover. */
export const BesideContext = createContext<HTMLElement | null>(null)

/** A small question before something is done. */
export function Ask({ title, note, action, onDone, onClose, disabled, children, besides }: Props) {
  const latest = useRef(onDone)
  latest.current = onDone
  const beside = useContext(BesideContext)
  return (
    <Dialog.Root open onOpenChange={open => !open && onClose()}>
      <Dialog.Portal container={beside}>
        <Dialog.Overlay className={`fixed inset-0 z-40 ${beside ? '' : 'bg-black/40'}`} />
        <Dialog.Content
          aria-describedby={undefined}
          // The keys go back to where they were, unless they have already gone somewhere else.
          onCloseAutoFocus={event => {
            if (document.activeElement !== document.body) event.preventDefault()
          }}
          className={`z-50 rounded-2xl border border-line bg-card p-4 shadow-2xl shadow-black/60 ${beside ? 'absolute inset-x-3 top-3' : 'fixed top-1/2 left-1/2 w-[360px] -translate-x-1/2 -translate-y-1/2'}`}
        >
          <Dialog.Title className="text-lg">{title}</Dialog.Title>
          <form
            className="mt-3 flex flex-col gap-2"
            onSubmit={event => {
              event.preventDefault()
              if (disabled) return
              // A number that is still being typed is taken as it stands.
              const typing = document.activeElement
              if (typing instanceof HTMLElement) flushSync(() => typing.blur())
              latest.current()
            }}
          >
            {children}
            {note && <div className="text-quiet">{note}</div>}
            <div className="mt-3 flex items-center justify-end gap-2">
              {besides}
              <span className="flex-1" />
              <button type="button" className="rounded-full bg-raised px-3 py-1.5 whitespace-nowrap" onClick={onClose}>
                Leave it
              </button>
              <button
                type="submit"
                disabled={disabled}
                className="rounded-full bg-lime px-3.5 py-1.5 font-bold whitespace-nowrap text-on-lime"
              >
                {action}
              </button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
