import { FileSearch, Plus, Trash2 } from 'lucide-react'
import { memo, type ReactElement, useContext, useRef } from 'react'
import { findAgain } from '../../app/engine/bring-takes'
import { placeTake } from '../../app/engine/place'
import { rootShot, takeClosed, takeOpened, takeRemoved, useSend, useStore } from '../../app/store'
import { type Shot, type Take, takeSeconds, takeUses } from '../../core/shot'
import { fps, framesIn, lengthText, rateText } from '../../core/time'
import { IconButton } from '../common/Button'
import { Confirm } from '../common/Confirm'
import { Menu, MenuItem } from '../common/Menu'
import { sayProblem } from '../common/problem'
import { SessionContext } from '../stage/engine-context'
import { Strip } from './Strip'

function pictureText({ picture, sound }: Take): string {
  if (!picture) return sound ? 'sound only' : 'nothing'
  const size = `${picture.size.width}×${picture.size.height}`
  if (picture.kind !== 'film') return `${size}, ${picture.kind}`
  return `${size}, ${picture.varies ? 'rate varies' : `${rateText(picture.rate)} fps`}`
}

function lengthOf(take: Take): string {
  const { picture, sound } = take
  if (picture && picture.kind !== 'film') return 'as long as wanted'
  const rate = picture?.kind === 'film' ? picture.rate : { num: 25, den: 1 }
  return `${lengthText(framesIn(takeSeconds(take), rate), rate)}, ${sound ? 'sound' : 'silent'}`
}

function PlaceButton({ take, disabled }: { take: Take; disabled: boolean }) {
  const rate = useStore(s => rootShot(s)?.rate)
  const label = `Place ${take.name} at the playhead`
  const button = (props: object): ReactElement => (
    <IconButton icon={Plus} size="small" label={label} disabled={disabled} {...props} />
  )
  const film = take.picture?.kind === 'film' ? take.picture : null
  if (!film || !rate || fps(film.rate) === fps(rate)) return button({ onClick: () => placeTake(take, {}) })
  return (
    <Menu trigger={button({})}>
      <MenuItem onSelect={() => placeTake(take, {})}>By time: as fast as it was filmed</MenuItem>
      <MenuItem onSelect={() => placeTake(take, { frameForFrame: true })}>
        Frame for frame: {Number(((100 * fps(rate)) / fps(film.rate)).toFixed(1))}% as fast
      </MenuItem>
    </Menu>
  )
}

const uses = new WeakMap<Shot, Map<string, string>>()

/** The layers that use a take, a line each; looked up once for each change of the shot. */
function usesOf(root: Shot | null, digest: string): string {
  if (!root) return ''
  const known = uses.get(root) ?? new Map<string, string>()
  uses.set(root, known)
  let lines = known.get(digest)
  if (lines === undefined) {
    lines = takeUses(root, digest)
      .map(u => [...u.inside, u.layer.name].join(' › '))
      .join('\n')
    known.set(digest, lines)
  }
  return lines
}

/** A take: what it shows, where it is used, and what can be done with it. */
export const TakeRow = memo(function TakeRow({ take }: { take: Take }) {
  const send = useSend()
  const session = useContext(SessionContext)
  // As text, so that a row is made anew only when its lines are others.
  const lines = useStore(s => usesOf(rootShot(s), take.digest))
  const readOnly = useStore(s => s.view.readOnly)
  const missing = useStore(s => s.view.missing.includes(take.digest))
  const open = useStore(s => s.view.take?.digest === take.digest)
  const finder = useRef<HTMLInputElement>(null)
  const names = lines === '' ? [] : lines.split('\n')
  const remove = () => {
    if (open) send(takeClosed())
    send(takeRemoved(take.digest))
  }
  const bin = (
    <IconButton
      icon={Trash2}
      size="small"
      label={`Remove ${take.name}`}
      disabled={readOnly}
      {...(names.length === 0 && { onClick: remove })}
    />
  )
  return (
    <li
      className={`overflow-hidden rounded-xl bg-card text-xs ${open ? 'outline-2 outline-lime/60' : ''}`}
      draggable={!missing && !readOnly}
      onDragStart={event => event.dataTransfer.setData('application/x-take', take.digest)}
      data-take={take.name}
    >
      <button
        type="button"
        className="block w-full text-left"
        disabled={missing}
        aria-label={`Look at ${take.name} alone`}
        onClick={() => send(open ? takeClosed() : takeOpened(take.digest))}
      >
        <Strip take={take} />
      </button>
      <div className="py-1.5 pr-1 pl-2.5">
        <span className="block truncate text-[13px] font-bold" title={take.name}>
          {take.name}
        </span>
        <span className="block truncate text-quiet">
          {pictureText(take)} · {lengthOf(take)}
        </span>
        <span className="flex items-center text-quiet">
          <span className={`min-w-0 flex-1 truncate ${missing ? 'text-warn' : ''}`} title={names.join(', ')}>
            {missing ? '◆ file missing' : names.length > 0 ? `in ${names.join(', ')}` : 'not placed'}
          </span>
          {missing && (
            <IconButton
              icon={FileSearch}
              size="small"
              label={`Point at the file of ${take.name}`}
              onClick={() => finder.current?.click()}
            />
          )}
          {names.length === 0 ? (
            bin
          ) : (
            <Confirm
              trigger={bin}
              title={`Remove “${take.name}”?`}
              text={`It is used ${names.length === 1 ? 'by the layer' : `by ${names.length} layers:`} ${names.join(', ')}. ${names.length === 1 ? 'That layer goes' : 'They go'} with it. Undo brings all back.`}
              action="Remove"
              onConfirm={remove}
            />
          )}
          <PlaceButton take={take} disabled={readOnly} />
        </span>
      </div>
      <input
        ref={finder}
        type="file"
        hidden
        aria-label={`File of ${take.name}`}
        onChange={async event => {
          const file = event.target.files?.[0]
          event.target.value = ''
          if (!file || !session) return
          const problem = await findAgain(take, file, session)
          if (problem) sayProblem(problem)
        }}
      />
    </li>
  )
})
