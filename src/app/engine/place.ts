// Takes and parts of them -> layers of the open shot, at the playhead.
import {
  type Act,
  actLayers,
  type Layer,
  makeLayer,
  matteOf,
  newId,
  type Placing,
  plateLayer,
  type Stretch,
  type Take,
} from '../../core/shot'
import { edit, editIn, layersChosen, pieceChosen, projectOf, shotOf, store, takeClosed } from '../store'

/** The frame at which things are placed: the playhead of the shot, also while a take is looked at. */
const playhead = (): number => store.getState().view.frame

/** Puts a take, or a part of it, nearest the lens; the shot comes back on the stage. */
export function placeTake(take: Take, placing: Omit<Placing, 'at'> & { at?: number }): void {
  const shot = shotOf(store.getState())
  if (!shot) return
  const layer = makeLayer(take, shot.size, shot.rate, { at: playhead(), ...placing })
  store.dispatch(takeClosed())
  store.dispatch(edit('addLayers', [layer]))
  store.dispatch(layersChosen([layer.id]))
}

/** Puts an empty picture of the set farthest from the lens, over all of the shot: a film's by the stretch in which nobody is there. */
export function placePlate(take: Take, stretch: Stretch, gesture: string = newId()): void {
  const shot = shotOf(store.getState())
  if (!shot) return
  const layer = plateLayer(take, stretch, shot)
  store.dispatch(editIn(gesture, 'addLayers', [layer]))
  store.dispatch(editIn(gesture, 'reorderLayer', layer.id, shot.layers.length))
}

/** Puts parts of a take over each other, all starting together. */
export function placeActs(take: Take, acts: readonly Act[], gesture: string = newId()): void {
  const shot = shotOf(store.getState())
  if (!shot) return
  const layers = actLayers(take, acts, shot.size, shot.rate, playhead())
  store.dispatch(takeClosed())
  store.dispatch(editIn(gesture, 'addLayers', layers))
  store.dispatch(layersChosen(layers.map(l => l.id)))
}

/** Makes a take the matte of a layer, as bright as it is. */
export function placeMatte(take: Take, layer: Layer): void {
  const shot = shotOf(store.getState())
  const takes = projectOf(store.getState())?.takes ?? []
  if (!shot || !take.picture) return
  const { matte, piece } = matteOf(take, layer, shot, takes)
  store.dispatch(edit('addMatteLayer', layer.id, matte, piece))
  store.dispatch(pieceChosen({ layer: layer.id, piece: piece.id }))
}
