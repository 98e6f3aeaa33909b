import { Dialog } from 'radix-ui'
import { type ReactNode, useRef } from 'react'

interface Props {
  title: string
  /** What will come of it, in a sentence or two. */
  told?: ReactNode
  action: string
  onDone: () => void
  onClose: () => void
  disabled?: boolean
  children?: ReactNode
  /** Another way out than doing it or not. */
  besides?: ReactNode
}

/** A small question before something is done. */
export function Ask({ title, told, action, onDone, onClose, disabled, children, besides }: Props) {
  const latest = useRef(onDone)
  latest.current = onDone
  return (
    <Dialog.Root open onOpenChange={open => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-50 w-[360px] -translate-x-1/2 -translate-y-1/2 rounded-2xl border border-line bg-card p-5 shadow-2xl shadow-black/60"
        >
          <Dialog.Title className="text-lg">{title}</Dialog.Title>
          <form
            className="mt-3 flex flex-col gap-2"
            onSubmit={event => {
              event.preventDefault()
              if (disabled) return
              // A number that is still being typed is taken as it stands.
              if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
              setTimeout(() => latest.current())
            }}
          >
            {children}
            {told && <div className="text-quiet">{told}</div>}
            <div className="mt-3 flex items-center justify-end gap-2">
              {besides}
              <span className="flex-1" />
              <button type="button" className="rounded-full bg-raised px-4 py-1.5" onClick={onClose}>
                Leave it
              </button>
              <button
                type="submit"
                disabled={disabled}
                className="rounded-full bg-lime px-4 py-1.5 font-bold text-on-lime"
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
