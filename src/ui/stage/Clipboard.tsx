import { useContext, useEffect } from 'react'
import { copied, pasteText } from '../../app/commands/clipboard'
import { removeLayers } from '../../app/commands/remove'
import { chosenIds, store } from '../../app/store'
import { useBringIn } from '../takes/use-bring-in'
import { SessionContext } from './engine-context'

const typing = (event: Event): boolean =>
  (event.target as HTMLElement | null)?.closest?.('input, textarea, [contenteditable]') !== null

/** Copy, cut and paste by the browser's own events: layers as text, takes as files. */
export function Clipboard() {
  const session = useContext(SessionContext)
  const bring = useBringIn()
  useEffect(() => {
    const onCopy = (event: ClipboardEvent) => {
      const text = typing(event) ? null : copied()
      if (!text) return
      event.preventDefault()
      event.clipboardData?.setData('text/plain', text)
      if (event.type === 'cut') removeLayers(chosenIds(store.getState()))
    }
    const onPaste = (event: ClipboardEvent) => {
      if (typing(event) || !session || !event.clipboardData) return
      event.preventDefault()
      const files = [...event.clipboardData.files]
      if (files.length > 0) void bring(files, false)
      else void pasteText(event.clipboardData.getData('text/plain'), session.stage)
    }
    document.addEventListener('copy', onCopy)
    document.addEventListener('cut', onCopy)
    document.addEventListener('paste', onPaste)
    return () => {
      document.removeEventListener('copy', onCopy)
      document.removeEventListener('cut', onCopy)
      document.removeEventListener('paste', onPaste)
    }
  }, [session, bring])
  return null
}
