// What a hand does with a bar: slide, trim, stretch, slip, fade.
import type { PointerEvent } from 'react'
import {
  chosenIds,
  edit,
  editIn,
  layerChosen,
  layersChosen,
  layerToggled,
  letGo,
  projectOf,
  sendByHand,
  shotOf,
  store,
  useSend,
} from '../../app/store'
import { edits, type Layer, type Shot, type Take } from '../../core/shot'
import { sayProblem } from '../common/problem'
import { type Drag, useDrag } from '../common/use-drag'
import { useLanes } from './lanes-context'
import { snap, snapPoints } from './snap'

/** A drag as it began: the layers that it moves, as they were, and where they may snap to. */
interface Began {
  layer: Layer
  moving: Layer[]
  points: number[]
  shot: Shot
  takes: readonly Take[]
  slipping: boolean
}

function begin(layer: Layer, slipping: boolean): Began | null {
  const state = store.getState()
  const shot = shotOf(state)
  if (!shot || state.view.readOnly || layer.locked) return null
  const ids = new Set(chosenIds(state))
  const moving = ids.has(layer.id) ? shot.layers.filter(l => ids.has(l.id) && !l.locked) : [layer]
  const points = snapPoints(shot, new Set(moving.map(l => l.id)), state.view.frame, ids)
  return { layer, moving, points, shot, takes: projectOf(state)?.takes ?? [], slipping }
}

const isExtending = (event: PointerEvent): boolean => event.shiftKey || event.ctrlKey || event.metaKey

/** Chooses as lists do: alone, one more or less, or up to here. A press on what is chosen already leaves the rest chosen. */
function choose(layer: Layer, event: PointerEvent): void {
  const state = store.getState()
  if (event.ctrlKey || event.metaKey) store.dispatch(layerToggled(layer.id))
  else if (event.shiftKey && state.view.layer) {
    const all = shotOf(state)?.layers.map(l => l.id) ?? []
    const [a, b] = [all.indexOf(state.view.layer), all.indexOf(layer.id)].sort((x, y) => x - y) as [number, number]
    const rest = all.slice(a, b + 1).filter(id => id !== state.view.layer)
    store.dispatch(layersChosen([state.view.layer, ...rest]))
  } else if (!chosenIds(state).includes(layer.id)) store.dispatch(layerChosen(layer.id))
}

/** Handlers for the parts of a layer's bar. */
export function useBarDrags(layer: Layer) {
  const send = useSend()
  const { scale, showMeeting } = useLanes()
  const met = (by: number, edges: number[], began: Began, drag: Drag) => {
    const free = !store.getState().view.snapping || drag.ctrl
    const result = free ? { by: Math.round(by), at: null } : snap(by, edges, began.points, scale.perFrame)
    showMeeting(result.at)
    return result.by
  }
  const end = () => {
    letGo()
    showMeeting(null)
  }

  const body = useDrag<Began>({
    start(event) {
      const extending = isExtending(event)
      choose(layer, event)
      return extending ? null : begin(layer, event.altKey)
    },
    move(began, drag) {
      const frames = drag.dx / scale.perFrame
      if (began.slipping) {
        sendByHand(
          editIn(
            drag.gesture,
            'slipLayers',
            began.moving.map(l => l.id),
            -Math.round(frames),
            began.takes,
            began.moving,
          ),
        )
        return
      }
      const edges = began.moving.flatMap(l => [l.span.from, l.span.to])
      const by = met(frames, edges, began, drag)
      sendByHand(
        editIn(
          drag.gesture,
          'slideLayers',
          began.moving.map(l => ({ layer: l.id, from: l.span.from + by })),
        ),
      )
    },
    end({ slipping, moving, takes, shot }, moved) {
      end()
      if (!moved) send(layerChosen(layer.id))
      const why = moved && slipping ? moving.map(l => edits.whyNotSlipped(l, takes, shot.rate)) : []
      if (why[0] && why.every(said => said !== null)) sayProblem(why[0])
    },
  })

  /** Trims, or with shift at the end of a bar stretches. */
  const trim = (side: edits.End) => ({
    start(event: PointerEvent) {
      choose(layer, { shiftKey: false, ctrlKey: false, metaKey: false } as PointerEvent)
      return begin(layer, event.shiftKey && side === 'to' && layer.timing.kind === 'play')
    },
    move(began: Began, drag: Drag) {
      const edges = began.slipping ? [began.layer.span.to] : began.moving.map(l => l.span[side])
      const by = met(drag.dx / scale.perFrame, edges, began, drag)
      if (began.slipping) {
        sendByHand(editIn(drag.gesture, 'stretchLayer', layer.id, began.layer.span.to + by, began.takes, began.layer))
        return
      }
      const moves = began.moving.map(l => ({ layer: l.id, frame: l.span[side] + by }))
      sendByHand(editIn(drag.gesture, 'trimLayers', side, moves, began.takes))
    },
    end,
  })
  const from = useDrag<Began>(trim('from'))
  const to = useDrag<Began>(trim('to'))

  const fade = (of: 'picture' | 'sound', side: 'in' | 'out') => ({
    start: () => {
      const began = begin(layer, false)
      return began && { began, at: of === 'picture' ? layer.fade[side] : layer.sound.fade[side] }
    },
    move({ at }: { at: number }, { dx, gesture }: Drag) {
      const by = Math.round(dx / scale.perFrame) * (side === 'in' ? 1 : -1)
      sendByHand(editIn(gesture, 'setFade', layer.id, of, { [side]: Math.max(0, at + by) }))
    },
    end: letGo,
  })
  const fades = {
    pictureIn: useDrag(fade('picture', 'in')),
    pictureOut: useDrag(fade('picture', 'out')),
    soundIn: useDrag(fade('sound', 'in')),
    soundOut: useDrag(fade('sound', 'out')),
  }
  const forget = (of: 'picture' | 'sound', side: 'in' | 'out') => () =>
    send(edit('setFade', layer.id, of, { [side]: 0 }))
  return { body, from, to, fades, forget }
}
