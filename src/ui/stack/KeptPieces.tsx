// Pieces that are kept on this machine, in the menu of a matte.
import { Bookmark, X } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useEffect, useState } from 'react'
import { placeKept } from '../../app/commands/picture'
import { forgetPiece, type KeptPiece, keptPieces } from '../../app/storage/kept-pieces'
import type { Layer } from '../../core/shot'
import { MenuItem } from '../common/Menu'
import { sayProblem } from '../common/problem'

/** A line each: put onto the layer, or forgotten. */
export function KeptPieces({ layer }: { layer: Layer }) {
  const [kept, setKept] = useState<readonly KeptPiece[]>([])
  useEffect(() => {
    keptPieces().then(setKept, error => sayProblem(`The pieces that are kept cannot be read (${error}).`))
  }, [])
  if (kept.length === 0) return null
  const forget = async ({ id }: KeptPiece) => {
    await forgetPiece(id)
    setKept(left => left.filter(k => k.id !== id))
  }
  return (
    <>
      {kept.map(one => (
        <div key={one.id} className="flex items-center">
          <div className="min-w-0 flex-1">
            <MenuItem keys="kept" onSelect={() => placeKept(one, layer)}>
              <Bookmark size={15} /> <span className="max-w-44 truncate">{one.name}</span>
            </MenuItem>
          </div>
          <DropdownMenu.Item
            aria-label={`Forget ${one.name}`}
            className="rounded-lg p-1.5 text-quiet outline-none data-[highlighted]:bg-raised"
            onSelect={event => {
              event.preventDefault()
              forget(one).catch(error => sayProblem(`It cannot be forgotten (${error}).`))
            }}
          >
            <X size={13} />
          </DropdownMenu.Item>
        </div>
      ))}
    </>
  )
}
