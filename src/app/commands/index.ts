// Every command with its name and shortcut: keys, menus, the finder and the shortcut page read this list and nothing else.
import { findingSet, redo, store, undo } from '../store'
import { CLIPBOARD } from './clipboard'
import type { Command } from './command'
import { CUT } from './cut'
import { GRAPHICS } from './graphics'
import { LAYERS } from './layers'
import { OUTLINE } from './outline'
import { PAINT } from './paint'
import { PICTURE } from './picture'
import { PIN } from './pin'
import { PLATE } from './plate'
import { RIDE } from './ride'
import { ROOM } from './room'
import { SEAM } from './seam'
import { TIME } from './time'

export type { Command } from './command'

const EDIT: readonly Command[] = [
  { id: 'undo', name: 'Undo', group: 'Edit', keys: 'mod+z', run: () => void store.dispatch(undo()) },
  { id: 'redo', name: 'Redo', group: 'Edit', keys: 'mod+shift+z, mod+y', run: () => void store.dispatch(redo()) },
  {
    id: 'find',
    name: 'Find a command',
    group: 'Edit',
    keys: 'shift+space, f1',
    run: () => void store.dispatch(findingSet(true)),
  },
]

export const COMMANDS: readonly Command[] = [
  ...TIME,
  ...EDIT,
  ...CLIPBOARD,
  ...CUT,
  ...LAYERS,
  ...GRAPHICS,
  ...PICTURE,
  ...OUTLINE,
  ...SEAM,
  ...PAINT,
  ...PLATE,
  ...PIN,
  ...RIDE,
  ...ROOM,
]

export const commandOf = (id: string): Command => {
  const command = COMMANDS.find(c => c.id === id)
  if (!command) throw new Error(`There is no command “${id}”.`)
  return command
}

const SHOWN: Readonly<Record<string, string>> = {
  mod: 'Ctrl',
  left: '←',
  right: '→',
  up: '↑',
  down: '↓',
  pagedown: 'Page ↓',
  pageup: 'Page ↑',
}

/** A shortcut as people read it; nothing for a command without one. */
export const shownKeys = (keys = ''): string =>
  keys
    .split(',')[0]!
    .split('+')
    .map(part => SHOWN[part] ?? part.slice(0, 1).toUpperCase() + part.slice(1))
    .join(' ')
