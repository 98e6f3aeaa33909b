import { Trash2 } from 'lucide-react'
import { type MouseEvent, type ReactNode, useEffect, useState } from 'react'
import { Link } from 'react-router'
import { getPoster, type Listed } from '../../app/storage/projects'
import type { Shot } from '../../core/shot'
import { lengthText, rateText } from '../../core/time'
import { IconButton } from '../common/Button'
import { Confirm } from '../common/Confirm'
import { Ghost } from '../common/Ghost'

/** What a card tells of a shot. */
type Shown = Pick<Shot, 'name' | 'size' | 'rate' | 'length'>

interface Props {
  id: string
  /** null: its document says nothing any more. */
  shot: Shown | null
  poster: string | null
  /** What it is about, in a line; and a film of a few seconds that plays while the card is pointed at or focused. */
  trick?: string
  glance?: string
  /** What has to be done before it is opened here; in another tab its address is enough. */
  onOpen?: () => void
  children?: ReactNode
}

const formText = ({ size, rate, length }: Shown): string =>
  `${size.width}×${size.height} · ${rateText(rate)} fps · ${lengthText(length, rate)}`

/** Whether a press is for here, not for another tab or window. */
const isForHere = ({ button, ctrlKey, metaKey, shiftKey }: MouseEvent): boolean =>
  button === 0 && !ctrlKey && !metaKey && !shiftKey

/** A shot with its picture; a click opens it. */
export function ShotCard({ id, shot, poster, trick, glance, onOpen, children }: Props) {
  const name = shot?.name ?? 'A damaged shot'
  const [moving, setMoving] = useState(false)
  const still = matchMedia('(prefers-reduced-motion: reduce)').matches
  return (
    <li className="group relative overflow-hidden rounded-2xl bg-panel">
      <Link
        to={`/shot/${encodeURIComponent(id)}`}
        onClick={event => {
          if (!onOpen || !isForHere(event)) return
          event.preventDefault()
          onOpen()
        }}
        className="block w-full text-left"
        aria-label={`Open ${name}`}
        aria-description={trick}
        onPointerEnter={() => setMoving(true)}
        onPointerLeave={() => setMoving(false)}
        onFocus={() => setMoving(true)}
        onBlur={() => setMoving(false)}
      >
        {/* What moves is only looked at: some browsers keep a press on a film for its own controls. */}
        <span className="pointer-events-none relative flex aspect-video items-center justify-center bg-well">
          {poster ? (
            <img src={poster} alt="" className="size-full object-contain" />
          ) : (
            <Ghost size={40} className="text-quiet" />
          )}
          {glance && moving && !still && (
            <video src={glance} autoPlay loop muted playsInline className="absolute inset-0 size-full object-contain" />
          )}
        </span>
        <span className="block px-4 py-3">
          <span className="block truncate font-display text-lg font-semibold">{name}</span>
          {trick && <span className="mb-1 block">{trick}</span>}
          <span className="text-quiet">{shot ? formText(shot) : '◆ cannot be read'}</span>
        </span>
      </Link>
      {children}
    </li>
  )
}

/** A shot that is kept on this machine, with its own poster and a way to remove it. */
export function StoredShot({ kept: { id, project }, onRemove }: { kept: Listed; onRemove: () => void }) {
  const [poster, setPoster] = useState<string | null>(null)
  useEffect(() => {
    let url: string | null = null
    getPoster(id).then(
      blob => {
        if (!blob) return
        url = URL.createObjectURL(blob)
        setPoster(url)
      },
      error => console.error('A poster cannot be read:', error),
    )
    return () => {
      if (url) URL.revokeObjectURL(url)
    }
  }, [id])
  return (
    <ShotCard id={id} shot={project?.shot ?? null} poster={poster}>
      <Confirm
        trigger={
          <IconButton
            icon={Trash2}
            size="small"
            label={`Remove ${project?.shot.name ?? 'a damaged shot'}`}
            className="absolute right-3 bottom-4 opacity-0 group-hover:opacity-100 focus-visible:opacity-100"
          />
        }
        title={`Remove “${project?.shot.name ?? 'a damaged shot'}”?`}
        text="The shot and the takes that only it uses leave this browser. Files saved elsewhere stay."
        action="Remove"
        onConfirm={onRemove}
      />
    </ShotCard>
  )
}
