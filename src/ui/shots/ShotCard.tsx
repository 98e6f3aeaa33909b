import { Trash2 } from 'lucide-react'
import { type ReactNode, useEffect, useState } from 'react'
import { getPoster } from '../../app/storage/projects'
import type { Project } from '../../core/shot'
import { lengthText, rateText } from '../../core/time'
import { IconButton } from '../common/Button'
import { Confirm } from '../common/Confirm'
import { Ghost } from '../common/Ghost'

interface Props {
  project: Project
  poster: string | null
  onOpen: () => void
  children?: ReactNode
}

/** A shot with its picture; a click opens it. */
export function ShotCard({ project, poster, onOpen, children }: Props) {
  const { name, size, rate, length } = project.shot
  return (
    <li className="group relative overflow-hidden rounded-2xl bg-panel">
      <button type="button" onClick={onOpen} className="block w-full text-left" aria-label={`Open ${name}`}>
        <span className="flex aspect-video items-center justify-center bg-well">
          {poster ? (
            <img src={poster} alt="" className="size-full object-contain" />
          ) : (
            <Ghost size={40} className="text-quiet" />
          )}
        </span>
        <span className="block px-4 py-3">
          <span className="block truncate font-display text-lg font-semibold">{name}</span>
          <span className="text-quiet">
            {size.width}×{size.height} · {rateText(rate)} fps · {lengthText(length, rate)}
          </span>
        </span>
      </button>
      {children}
    </li>
  )
}

/** A shot that is kept on this machine, with its own poster and a way to remove it. */
export function StoredShot({
  project,
  onOpen,
  onRemove,
}: {
  project: Project
  onOpen: () => void
  onRemove: () => void
}) {
  const [poster, setPoster] = useState<string | null>(null)
  useEffect(() => {
    let url: string | null = null
    getPoster(project.id).then(
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
  }, [project.id])
  return (
    <ShotCard project={project} poster={poster} onOpen={onOpen}>
      <Confirm
        trigger={
          <IconButton
            icon={Trash2}
            size="small"
            label={`Remove ${project.shot.name}`}
            className="absolute right-3 bottom-4 opacity-0 group-hover:opacity-100 focus-visible:opacity-100"
          />
        }
        title={`Remove “${project.shot.name}”?`}
        text="The shot and the takes that only it uses leave this browser. Files saved elsewhere stay."
        action="Remove"
        onConfirm={onRemove}
      />
    </ShotCard>
  )
}
