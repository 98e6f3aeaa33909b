// Taking layers away, with a word where others are made of them.
import { shownElsewhere } from '../../core/shot'
import { edit, store } from '../store'
import { shot } from './command'
import { say } from './say'

/** Says which mattes lose what they are made of, where layers leave the shot; `how` they left it. */
export function sayShown(gone: readonly string[], how: string): void {
  const open = shot()
  if (!open) return
  const really = gone.filter(id => !open.layers.some(l => l.id === id))
  const left = shownElsewhere(open, really).map(l => `“${l.name}”`)
  if (left.length > 0) say(`The matte of ${left.join(' and ')} was made of what ${how}: undo brings it back.`)
}

export function removeLayers(gone: readonly string[], closeGap = false): void {
  const before = shot()
  store.dispatch(edit('removeLayers', gone, closeGap))
  if (shot() !== before) sayShown(gone, 'is gone now')
}
