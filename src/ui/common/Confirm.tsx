import { AlertDialog } from 'radix-ui'
import type { ReactElement } from 'react'

interface Props {
  trigger: ReactElement
  title: string
  text: string
  action: string
  onConfirm: () => void
}

/** Asks before something that cannot be undone. */
export function Confirm({ trigger, title, text, action, onConfirm }: Props) {
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger asChild>{trigger}</AlertDialog.Trigger>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/60" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-50 w-96 -translate-x-1/2 -translate-y-1/2 rounded-2xl border border-line bg-card p-5">
          <AlertDialog.Title className="text-lg">{title}</AlertDialog.Title>
          <AlertDialog.Description className="mt-2 text-quiet">{text}</AlertDialog.Description>
          <div className="mt-5 flex justify-end gap-2">
            <AlertDialog.Cancel className="rounded-full bg-raised px-4 py-1.5">Keep it</AlertDialog.Cancel>
            <AlertDialog.Action className="rounded-full bg-warn px-4 py-1.5 font-bold text-ground" onClick={onConfirm}>
              {action}
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  )
}
