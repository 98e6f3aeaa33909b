import { layerChosen, projectOf, shotOf, store, useStore } from '../../app/store'
import { endsEarly, hiddenBy, hidesOthers, type Layer } from '../../core/shot'
import { CommandButton } from './CommandButton'

const CUT = 'Cut somebody out'

/** Where nothing lies behind what ends before the shot does, it leaves nothing. */
function EndsEarly({ id }: { id: string }) {
  const early = useStore(s => {
    const shot = shotOf(s)
    const last = shot?.layers.at(-1)
    return last?.id === id && endsEarly(last, shot!) ? last.span.to : null
  })
  if (early === null) return null
  return (
    <p className="px-1 text-quiet">
      Nothing lies behind it from frame {Math.max(0, early) + 1} on, where it ends.{' '}
      <CommandButton id="stand">Let it stand</CommandButton> until the shot’s end.
    </p>
  )
}

function Shows({ id }: { id: string }) {
  const takes = useStore(s => projectOf(s)?.takes) ?? []
  const hides = useStore(s => {
    const shot = shotOf(s)
    const own = shot?.layers.find(l => l.id === id)
    return own !== undefined && hidesOthers(own, shot!, takes)
  })
  const hider = useStore(s => {
    const shot = shotOf(s)
    const own = shot?.layers.find(l => l.id === id)
    return own ? hiddenBy(own, shot!, takes) : null
  })
  const isAlone = useStore(s => {
    const layers = shotOf(s)?.layers ?? []
    return layers.length === 1 && layers[0]!.source.kind === 'take'
  })
  if (hider)
    return (
      <p className="px-1 text-quiet">
        “{hider.name}” shows whole, and hides it.{' '}
        <CommandButton id="cutout" before={() => store.dispatch(layerChosen(hider.id))}>
          {CUT}
        </CommandButton>{' '}
        of that one, or add a piece there.
      </p>
    )
  if (hides)
    return (
      <p className="px-1 text-quiet">
        It shows whole, and hides what lies behind it. <CommandButton id="farthest">Put it farthest</CommandButton>{' '}
        <CommandButton id="cutout">{CUT}</CommandButton> or add a piece, or drop a film of a matte here.
      </p>
    )
  return (
    <p className="px-1 text-quiet">
      The whole picture shows. {isAlone && <CommandButton id="cutout">{CUT}</CommandButton>}
      {isAlone ? ' or add' : 'Add'} a piece, or drop a film of a matte here.
    </p>
  )
}

/** What a layer without a matte shows, and what would help where that hides others, or is hidden itself. */
export function EmptyMatte({ layer }: { layer: Layer }) {
  return (
    <>
      <Shows id={layer.id} />
      <EndsEarly id={layer.id} />
    </>
  )
}
