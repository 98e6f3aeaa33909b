/** The context of a small canvas that is seldom drawn: it is painted with the page, since hundreds with a layer each of their own slow it. */
export const plainContext = (canvas: HTMLCanvasElement): CanvasRenderingContext2D | null =>
  canvas.getContext('2d', { willReadFrequently: true })
