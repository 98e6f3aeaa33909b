// The demo shots, a line each.

import type { DemoShot, Files } from './shot'
import { behindTheWalker } from './tricks/behind-the-walker'
import { clockTower } from './tricks/clock-tower'
import { hoop } from './tricks/hoop'
import { intoThePanelling } from './tricks/into-the-panelling'
import { oneLongTake } from './tricks/one-long-take'
import { openLate } from './tricks/open-late'
import { sevenClockmakers } from './tricks/seven-clockmakers'
import { stuckSecond } from './tricks/stuck-second'
import { thePendulum } from './tricks/the-pendulum'
import { throughTheLetters } from './tricks/through-the-letters'
import { trolley } from './tricks/trolley'
import { twoAtTheCounter } from './tricks/two-at-the-counter'
import { vanishingHour } from './tricks/vanishing-hour'

/** Every demo shot. */
export const demoShots = (files: Files): DemoShot[] =>
  [
    twoAtTheCounter,
    openLate,
    trolley,
    intoThePanelling,
    throughTheLetters,
    clockTower,
    oneLongTake,
    stuckSecond,
    sevenClockmakers,
    thePendulum,
    vanishingHour,
    behindTheWalker,
    hoop,
  ].map(make => make(files))
