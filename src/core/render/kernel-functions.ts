// What kernels.wasm exports, one function a line of `kernels/index.ts`.

/** The functions of kernels.wasm; each is described where it is written. Pointers are byte addresses. */
export interface KernelFunctions {
  heapBase(): number
  prepareTransfer(): void
  toLinear(src: number, dst: number, n: number): void
  toCodes(src: number, dst: number, n: number): void
  chromaRow(
    near: number,
    far: number,
    weight: number,
    chromaWidth: number,
    width: number,
    half: number,
    centred: number,
    out: number,
  ): void
  yuvRow(
    luma: number,
    u: number,
    v: number,
    out: number,
    n: number,
    black: number,
    y: number,
    rv: number,
    gu: number,
    gv: number,
    bu: number,
  ): void
  lumaRow(src: number, dst: number, n: number): void
  chromaPairRow(top: number, bottom: number, u: number, v: number, width: number, from: number, to: number): void
  alphaRow(src: number, out: number, n: number): void
  brightRow(src: number, out: number, n: number): void
  codesAlphaRow(src: number, out: number, n: number): void
  firstCovered(coverage: number, n: number): number
  lastCovered(coverage: number, n: number): number
  isCovered(coverage: number, n: number): number
  greyRow(src: number, dst: number, n: number): void
  coveredBox(plane: number, width: number, height: number, box: number): void
  whiteRow(src: number, dst: number, n: number): void
  shareCodes(src: number, out: number, n: number): void
  spreadCells(cells: number, width: number, height: number, out: number): void
  copyBytes(dst: number, src: number, n: number): void
  halveCodes(src: number, stride: number, width: number, height: number, dst: number, toStride: number): void
  orderRow(row: number, n: number, opaque: number): void
  upRow(src: number, above: number, dst: number, n: number, channels: number): void
  overRow(dst: number, src: number, coverage: number, n: number, opacity: number): void
  blendRow(dst: number, src: number, coverage: number, n: number, opacity: number, mode: number): void
  fillRow(dst: number, n: number, r: number, g: number, b: number, a: number): void
  classifyRow(classes: number, coverage: number, n: number, layer: number, opaque: number): number
  findRuns(classes: number, n: number, out: number): number
  edgeRow(
    out: number,
    n: number,
    y: number,
    px: number,
    py: number,
    nx: number,
    ny: number,
    grow: number,
    inside: number,
    outside: number,
  ): void
  outlineArea(points: number, count: number, width: number, height: number, out: number, stride: number): void
  outlineRows(points: number, count: number, height: number): number
  boxRow: OvalRow
  ovalRow: OvalRow
  joinRow(matte: number, piece: number, n: number, mode: number, strength: number, inverted: number): void
  fillCoverage(dst: number, n: number, value: number): void
  multiplyRow(matte: number, other: number, n: number): void
  frameRectRow(out: number, n: number, y: number, left: number, top: number, right: number, bottom: number): void
  filterRow(src: number, dst: number, n: number, taps: number, weights: number, count: number): void
  gainRow(row: number, n: number, r: number, g: number, b: number, offset: number): void
  combineRows(rows: number, weights: number, count: number, n: number, dst: number): void
  boundRow(row: number, n: number): void
  grainRow(
    dst: number,
    n: number,
    x: number,
    y: number,
    tile: number,
    table: number,
    seed: number,
    same: number,
    own: number,
  ): void
  gradientRow(
    dst: number,
    n: number,
    x: number,
    y: number,
    ax: number,
    ay: number,
    bx: number,
    by: number,
    round: number,
    table: number,
  ): void
  accumulateRow(dst: number, src: number, n: number, weight: number): void
  spinRow(
    src: number,
    across: number,
    width: number,
    height: number,
    dst: number,
    n: number,
    u: number,
    v: number,
    du: number,
    dv: number,
  ): void
  warpRow(
    src: number,
    across: number,
    width: number,
    height: number,
    dst: number,
    coverage: number,
    n: number,
    map: number,
    x: number,
    y: number,
  ): void
  liftRow(src: number, dst: number, n: number, scale: number, lift: number): void
  clipCells(luma: number, u: number, v: number, width: number, height: number, lift: number): void
  halfRow(top: number, bottom: number, dst: number, width: number): void
  slopePlane(plane: number, width: number, height: number, least: number, most: number, out: number): void
  halvePlane(src: number, width: number, height: number, dst: number, room: number): void
  likePatch(plane: number, width: number, height: number, patch: number, place: number): number
  crossPlanes(planes: number, n: number, numbers: number, cross: number, square: number, power: number): void
  ratioPlane(cross: number, square: number, power: number, n: number): void
  weighCells(planes: number, n: number, width: number, numbers: number, aside: number): void
  overlayRow(dst: number, src: number, n: number): void
  fillPits(alpha: number, step: number, before: number, width: number, height: number, pit: number): void
  dropIslands(alpha: number, width: number, height: number, part: number, smallest: number, found: number): void
  squaresWith(plane: number, width: number, height: number, block: number, sign: number, out: number): void
  squareShares(is: number, width: number, height: number, block: number, out: number): void
  signRuns(plane: number, width: number, height: number, starts: number, firsts: number): number
  standingCells(told: number, width: number, height: number, is: number, box: number): void
  tallyCells(told: number, is: number, left: number, n: number, doubt: number, shaded: number, counts: number): void
  clippedCells(y: number, n: number, black: number, white: number, counts: number): void
  fillCells(seen: number, filled: number, width: number, height: number, out: number): void
  turnPicture(src: number, dst: number, width: number, height: number, quarters: number): void
}

type OvalRow = (
  out: number,
  n: number,
  y: number,
  cx: number,
  cy: number,
  hw: number,
  hh: number,
  cos: number,
  sin: number,
  grow: number,
  inside: number,
  outside: number,
) => void
