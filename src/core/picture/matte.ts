// What layers cover, seen: white where they do, black where not. Half is the code of half, as mattes are handed from program to program.
import type { PlannedLayer } from '../plan/types'
import type { PictureKind } from './kind'

export interface MattePicture {
  kind: 'matte'
  layers: PlannedLayer[]
}

export const MATTE: PictureKind<MattePicture> = {
  needs: ({ layers }, of) => layers.flatMap(of.layer),
  rows(k, { layers }, { size, compose }) {
    const { width } = size
    const make = compose({ size, backdrop: null, layers })
    const row = k.alloc(width * 16)
    const grey = k.alloc(width * 4)
    let opened = -1
    return {
      ...size,
      opaque: true,
      open(y) {
        if (opened === y) return
        opened = y
        make(y, row)
        k.greyRow(row, grey, width)
      },
      codes: (x, n, dst) => {
        k.copyBytes(dst, grey + x * 4, n * 4)
      },
      linear: (x, n, dst) => k.toLinear(grey + x * 4, dst, n),
    }
  },
}
