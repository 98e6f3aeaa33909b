import { Plus } from 'lucide-react'
import { commandOf, shownKeys } from '../../app/commands'
import { useStore } from '../../app/store'
import { IconButton } from '../common/Button'
import { Menu, MenuItem } from '../common/Menu'
import { useEngine } from '../stage/engine-context'

const ADDED = [
  'lettering',
  'lettering-behind',
  'panel',
  'panel-box',
  'panel-oval',
  'panel-outline',
  'panel-strip',
] as const

/** New layers of what is drawn instead of filmed. */
export function AddMenu() {
  const engine = useEngine()
  const fixed = useStore(s => s.view.readOnly || s.view.take !== null)
  const possible = useStore(() => ADDED.filter(id => commandOf(id).applies?.() ?? true).join(' '))
  return (
    <Menu trigger={<IconButton icon={Plus} label="Add letters or a panel" size="small" disabled={fixed || !engine} />}>
      {ADDED.map(id => {
        const { name, keys, run } = commandOf(id)
        const isPossible = possible.split(' ').includes(id)
        return (
          <MenuItem key={id} keys={shownKeys(keys)} disabled={!isPossible} onSelect={() => engine && run(engine)}>
            {name}
          </MenuItem>
        )
      })}
    </Menu>
  )
}
