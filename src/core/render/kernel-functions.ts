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
  greyRow(src: number, dst: number, n: number): void
  copyBytes(dst: number, src: number, n: number): void
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
  stripCoverage(
    points: number,
    count: number,
    width: number,
    height: number,
    grow: number,
    inside: number,
    outside: number,
    out: number,
    field: number,
  ): void
  outlineDistance(
    points: number,
    count: number,
    width: number,
    height: number,
    grow: number,
    inside: number,
    outside: number,
    softs: number,
    share: number,
    out: number,
    near: number,
    square: number,
    stride: number,
    rows: number,
    bends: number,
  ): void
  boxRow: OvalRow
  ovalRow: OvalRow
  joinRow(matte: number, piece: number, n: number, mode: number, strength: number, inverted: number): void
  fillCoverage(dst: number, n: number, value: number): void
  multiplyRow(matte: number, other: number, n: number): void
  frameRectRow(out: number, n: number, y: number, left: number, top: number, right: number, bottom: number): void
  filterRow(src: number, dst: number, n: number, taps: number, weights: number, count: number): void
  gainRow(row: number, n: number, r: number, g: number, b: number, offset: number): void
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
  halfRow(top: number, bottom: number, dst: number, width: number): void
  lightCells(y: number, u: number, v: number, n: number, matrix: number, outY: number, outU: number, outV: number): void
  lightLuma(luma: number, u: number, v: number, width: number, height: number, matrix: number, out: number): void
  veilCells(y: number, u: number, v: number, n: number, tables: number, outY: number, outU: number, outV: number): void
  veilLuma(luma: number, u: number, v: number, width: number, height: number, tables: number, out: number): void
  slopePlane(plane: number, width: number, height: number, least: number, most: number, out: number): void
  shrinkPlane(
    src: number,
    stride: number,
    width: number,
    height: number,
    dst: number,
    toWidth: number,
    toHeight: number,
    scale: number,
    lift: number,
    row: number,
    firsts: number,
    weights: number,
    taps: number,
  ): void
  shiftPlane(src: number, width: number, height: number, x: number, y: number, dst: number, row: number): void
  turnPlane(
    src: number,
    width: number,
    height: number,
    x0: number,
    y0: number,
    cos: number,
    sin: number,
    dst: number,
  ): void
  halvePlane(src: number, width: number, height: number, dst: number, room: number): void
  takePatch(plane: number, width: number, height: number, x: number, y: number, slight: number, patch: number): number
  settlePatch(
    plane: number,
    width: number,
    height: number,
    patch: number,
    rounds: number,
    small: number,
    place: number,
  ): void
  likePatch(plane: number, width: number, height: number, patch: number, place: number): number
  boxMean(
    plane: number,
    step: number,
    width: number,
    height: number,
    r: number,
    out: number,
    room: number,
    sums: number,
  ): void
  bondPlanes(
    fy: number,
    fu: number,
    fv: number,
    py: number,
    pu: number,
    pv: number,
    width: number,
    height: number,
    scale: number,
    table: number,
    across: number,
    down: number,
  ): void
  crossPlanes(planes: number, n: number, cross: number, square: number): void
  ratioPlane(cross: number, square: number, n: number): void
  weighCells(planes: number, n: number, width: number, numbers: number, aside: number): void
  countColours(y: number, u: number, v: number, told: number, n: number, sure: number, counts: number): number
  weighColours(y: number, u: number, v: number, n: number, own: number, other: number, most: number, odds: number): void
  believe(
    odds: number,
    across: number,
    down: number,
    width: number,
    height: number,
    sweeps: number,
    left: number,
    right: number,
    above: number,
    below: number,
    own: number,
    out: number,
  ): void
  softenCells(
    tables: number,
    numbers: number,
    width: number,
    height: number,
    fullWidth: number,
    fullHeight: number,
    fars: number,
    fromX: number,
    fromY: number,
    toX: number,
    toY: number,
  ): void
  settleAlpha(
    raw: number,
    doubts: number,
    luma: number,
    width: number,
    height: number,
    fromX: number,
    fromY: number,
    toX: number,
    toY: number,
    numbers: number,
    out: number,
  ): void
  besideCells(
    share: number,
    left: number,
    step: number,
    width: number,
    height: number,
    weights: number,
    sums: number,
  ): void
  packColours(
    alpha: number,
    colours: number,
    luma: number,
    u: number,
    v: number,
    width: number,
    height: number,
    lift: number,
    stale: number,
    out: number,
  ): number
  spreadColours(
    alpha: number,
    packed: number,
    most: number,
    width: number,
    height: number,
    rings: number,
    out: number,
  ): void
  overlayRow(dst: number, src: number, n: number): void
  dropSpecks(
    alpha: number,
    step: number,
    before: number,
    width: number,
    height: number,
    covered: number,
    bare: number,
    needed: number,
    faint: number,
  ): void
  fillPits(alpha: number, step: number, before: number, width: number, height: number, pit: number): void
  dropIslands(alpha: number, width: number, height: number, part: number, smallest: number, found: number): void
  dropFaint(
    alpha: number,
    step: number,
    marks: number,
    width: number,
    height: number,
    firm: number,
    faint: number,
    rounds: number,
  ): void
  squareShifts(
    pictures: number,
    width: number,
    height: number,
    smallWidth: number,
    smallHeight: number,
    wanted: number,
    block: number,
    around: number,
    smaller: number,
    far: number,
    near: number,
    lazy: number,
    calm: number,
    out: number,
  ): void
  squaresWith(plane: number, width: number, height: number, block: number, sign: number, out: number): void
  signRuns(plane: number, width: number, height: number, starts: number, firsts: number): number
  standingCells(told: number, width: number, height: number, is: number, box: number): void
  tallyCells(
    told: number,
    is: number,
    left: number,
    y: number,
    n: number,
    doubt: number,
    shaded: number,
    black: number,
    white: number,
    counts: number,
  ): void
  changeSums(frame: number, plate: number, is: number, width: number, height: number, least: number, sums: number): void
  steadyAlpha(
    alpha: number,
    before: number,
    width: number,
    height: number,
    planes: number,
    grain: number,
    perU: number,
    perV: number,
    near: number,
    keep: number,
    moves: number,
    rest: number,
    x0: number,
    y0: number,
    x1: number,
    y1: number,
  ): void
  shadeCells(
    near: number,
    left: number,
    width: number,
    height: number,
    table: number,
    out: number,
    seen: number,
    outs: number,
    seens: number,
  ): void
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
