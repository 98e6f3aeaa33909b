import { Tooltip } from 'radix-ui'
import type { ReactElement } from 'react'

/** A short word about a control, with its shortcut, on hover and focus. */
export function Tip({ text, keys, children }: { text: string; keys?: string; children: ReactElement }) {
  return (
    <Tooltip.Root>
      <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          sideOffset={6}
          collisionPadding={8}
          className="z-50 rounded-md bg-raised px-2 py-1 text-xs text-ink shadow-lg shadow-black/40"
        >
          {text}
          {keys && <span className="ml-2 text-quiet">{keys}</span>}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  )
}
