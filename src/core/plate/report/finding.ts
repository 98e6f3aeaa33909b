// What is measured of frames, and what is said about a take.
import type { Grain } from '../../look/grain'
import type { Gain, Light } from '../light'
import type { Movement } from '../movement'
import type { Whereabouts } from '../whereabouts'

/** What is measured of a frame against the plate as it is cut out. */
export interface Measured {
  movement: Movement
  gain: Gain
  /** 0..1: how much of the picture somebody fills. */
  share: number
  /** 0..1: how much of the border of somebody is told only just. */
  unsure: number
  /** 0..1: how much of the picture is only somebody's shadow. */
  shade: number
  /** How sharp the set is, in that of the plate. */
  sharp: number
  /** 0..1: how much is black and white beyond telling. */
  dark: number
  bright: number
}

/** What is measured of a frame as a take is looked through. */
export interface Seen extends Measured {
  /** Its light with what is added to all of it. */
  veiled: Light
  where: Whereabouts | null
  /** Told of some frames only, at the size that the take has. */
  grain?: Grain
  /** 0..1: on how much of the picture somebody stands in the plate. Told of the last frame only, and where that plate was not made of the take itself. */
  occupied?: number
}

/** What can be done about a finding: bring the camera onto the plate's, the light to the plate's, part the take where that changes, take a stretch as the plate, part the take into acts, make an empty plate of the take and the plate's. */
export type Advice = 'steady' | 'match' | 'split' | 'plate' | 'acts' | 'empty'

export interface Finding {
  about: 'camera' | 'light' | 'people' | 'picture'
  /** Frames, the last one included. */
  from: number
  to: number
  /** Whether something should be done about it. */
  isFault: boolean
  /** What the stretch is called where it lies in time; '' where it is all of the take. */
  word: string
  sentence: string
  advice: Advice | null
}

/** More than so many of a kind are told in one sentence. */
export const FEW = 4

/** Frames on both sides of a step that are compared. */
export const BESIDE = 5

export const middle = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[sorted.length >> 1] ?? 0
}

export const px = (value: number): string => `${value.toFixed(value < 1 ? 2 : 1)} px`
export const percent = (share: number): string => `${(100 * share).toFixed(Math.abs(share) < 0.1 ? 1 : 0)}%`

/** Something about all of a take. */
export const overall = (frames: readonly unknown[]) => ({ from: 0, to: frames.length - 1, word: '' }) as const

/** Where a value steps from one level to another by more than `least`: the frame that is the first of the new level, and by how much. */
export function steps(values: readonly number[], least: number): { at: number; by: number }[] {
  const found: { at: number; by: number }[] = []
  for (let i = 1; i < values.length; i++) {
    const before = middle(values.slice(Math.max(0, i - BESIDE), i))
    const after = middle(values.slice(i, i + BESIDE))
    const by = after - before
    if (Math.abs(by) < least || Math.abs(values[i]! - values[i - 1]!) < least / 2) continue
    const last = found.at(-1)
    if (last && i - last.at < BESIDE) {
      if (Math.abs(by) > Math.abs(last.by)) found[found.length - 1] = { at: i, by }
    } else found.push({ at: i, by })
  }
  return found
}
