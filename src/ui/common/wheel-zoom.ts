/** By how much a turn of the wheel zooms. A pinch comes as many small turns with Ctrl; a notch of a wheel is large, with Ctrl or without. */
export const wheelZoom = ({ ctrlKey, deltaY }: Pick<WheelEvent, 'ctrlKey' | 'deltaY'>): number =>
  Math.exp(-deltaY * (ctrlKey && Math.abs(deltaY) < 50 ? 0.01 : 0.002))
