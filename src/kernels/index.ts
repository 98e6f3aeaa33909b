// The table of contents of kernels.wasm: one file a kernel.
export { prepareTransfer, toLinear, toCodes } from "./transfer";
export { chromaRow, yuvRow } from "./yuv";
export { lumaRow, chromaPairRow } from "./encode";
export { alphaRow, codesAlphaRow, brightRow, greyRow, shareCodes, spreadCells, whiteRow, coveredBox } from "./alpha";
export { copyBytes, copyRows } from "./copy";
export { orderRow } from "./order";
export { grainRow } from "./grain";
export { upRow } from "./up";
export { overRow, fillRow } from "./over";
export { blendRow } from "./blend";
export { spinRow } from "./spin";
export { warpRow } from "./warp";
export { gradientRow } from "./gradient";
export { classifyRow, findRuns, firstCovered, isCovered, lastCovered } from "./runs";
export { edgeRow } from "./edge";
export { boxRow } from "./box";
export { ovalRow } from "./oval";
export { outlineArea } from "./area";
export { outlineDistance } from "./outline";
export { outlineRows } from "./winding";
export { stripCoverage } from "./strip";
export { joinRow, fillCoverage, multiplyRow } from "./join";
export { filterRow, accumulateRow, combineRows, boundRow, gainRow } from "./filter";
export { turnPicture } from "./turn";
export { frameRectRow } from "./frame";
export { clipCells } from "./clip";
export { liftRow, halfRow, lightCells, lightLuma, slopePlane } from "./cells";
export { veilCells, veilLuma } from "./veil";
export { lightPairs, sharedRatio, pairLights, lightSums } from "./pairs";
export { smoothPlane, steepestPlaces, smoothAnchors, anchorsOff, anchorSums } from "./anchors";
export { countNoise } from "./counts";
export { shiftPlane, turnPlane } from "./move";
export { shrinkPlane } from "./shrink";
export { halveCodes } from "./halve";
export { boxMean } from "./mean";
export { medianRow } from "./median";
export { bondPlanes } from "./bonds";
export { differSquares } from "./differ";
export { crossPlanes, ratioPlane, weighCells, countColours, weighColours } from "./weigh";
export { halvePlane, takePatch, settlePatch, likePatch } from "./follow";
export { believe } from "./believe";
export { packColours, spreadColours, overlayRow } from "./colours";
export { softenCells } from "./soften";
export { besideCells } from "./set";
export { squareShares, strandSquares, farthestColours, keepGaps } from "./strands";
export { settleAlpha } from "./settle";
export { dropSpecks, fillPits, dropIslands, dropFaint } from "./specks";
export { signRuns } from "./signs";
export { standingCells, tallyCells, clippedCells, changeSums } from "./standing";
export { squareShifts, squaresWith } from "./squares";
export { steadyAlpha } from "./steady";
export { shadeCells, fillCells } from "./shade";

/** The first byte of memory that the kernels leave to their host. */
export function heapBase(): usize {
  return __heap_base;
}
