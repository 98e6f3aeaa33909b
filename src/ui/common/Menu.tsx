import { DropdownMenu } from 'radix-ui'
import type { ReactElement, ReactNode } from 'react'

/** A menu that opens from a button. */
export function Menu({
  trigger,
  children,
  align = 'end',
}: {
  trigger: ReactElement
  children: ReactNode
  align?: 'start' | 'end'
}) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align={align}
          sideOffset={6}
          className="z-40 max-h-[80vh] min-w-48 overflow-y-auto rounded-xl border border-line bg-card p-1 shadow-xl shadow-black/50"
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}

export function MenuItem({
  children,
  keys,
  disabled,
  onSelect,
}: {
  children: ReactNode
  keys?: string
  disabled?: boolean
  onSelect: () => void
}) {
  return (
    <DropdownMenu.Item
      disabled={disabled}
      onSelect={onSelect}
      className="flex cursor-default items-center gap-6 rounded-lg px-2.5 py-1 outline-none data-[disabled]:opacity-40 data-[highlighted]:bg-raised"
    >
      <span className="flex flex-1 items-center gap-2">{children}</span>
      {keys && <span className="text-xs text-quiet">{keys}</span>}
    </DropdownMenu.Item>
  )
}
