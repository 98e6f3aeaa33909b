// Keys that are chosen, in the rows of one layer.
import { createSlice, isAnyOf, type PayloadAction } from '@reduxjs/toolkit'
import { keysOf } from '../../core/keys'
import { type edits, getValue, keyedPaths, type Layer } from '../../core/shot'
import { groupEntered, layerChosen, layersChosen, layerToggled, pieceChosen, pointsChosen } from './view'

interface KeysState {
  layer: string
  /** By the path of their value, as text. */
  frames: Readonly<Record<string, readonly number[]>>
}

const NONE: KeysState = { layer: '', frames: {} }

/** Something else is chosen: what is deleted next is that. */
const elseChosen = isAnyOf(groupEntered, layerChosen, layersChosen, layerToggled, pieceChosen, pointsChosen)

const slice = createSlice({
  name: 'keys',
  initialState: NONE,
  reducers: {
    keysChosen: (_, action: PayloadAction<{ layer: string; keys: readonly edits.KeysAt[] }>) => ({
      layer: action.payload.layer,
      frames: Object.fromEntries(action.payload.keys.map(({ path, frames }) => [JSON.stringify(path), frames])),
    }),
  },
  extraReducers: builder => void builder.addMatcher(elseChosen, () => NONE),
})

export const { keysChosen } = slice.actions
export const keysReducer = slice.reducer

/** The keys of a layer that are chosen and still there, of each value in the order of its rows. */
export function chosenKeys({ layer: id, frames }: KeysState, layer: Layer): edits.KeysAt[] {
  if (layer.id !== id) return []
  return keyedPaths(layer).flatMap(path => {
    const chosen = frames[JSON.stringify(path)] ?? []
    const there = keysOf(getValue(layer, path)!).flatMap(k => (chosen.includes(k.frame) ? [k.frame] : []))
    return there.length > 0 ? [{ path, frames: there }] : []
  })
}
