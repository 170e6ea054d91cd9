// The kernel's door: everything the host may call.
import {
  CONTEXT_AIDS,
  CONTEXT_BYTES,
  CONTEXT_LAMPS,
  CONTEXT_LAYERS,
  CONTEXT_PORTALS,
  CONTEXT_STACK,
  CONTEXT_VERTICES,
  CONTEXTS
} from './layout';
import * as aovs from './aovs';
import * as lamps from './lamps';
import { clearLimited, limitedLight, scatteredLight, setRays } from './path';
import * as portals from './portals';
import * as placed from './placed';
import { clearRayCount, rayCount, setStack, shadowRayCount } from './traverse';

/** Gives this instance the context of a thread; call once after instantiation. */
export function setThread(thread: i32): void {
  const context: usize = CONTEXTS + thread * CONTEXT_BYTES;
  setRays(context, context + CONTEXT_LAYERS);
  aovs.setScratch(context + CONTEXT_AIDS);
  portals.setScratch(context + CONTEXT_PORTALS);
  lamps.setScratch(context + CONTEXT_LAMPS);
  placed.setScratch(context + CONTEXT_VERTICES);
  setStack(context + CONTEXT_STACK);
}

/** How many of the rays that takeRayCount would give are shadow tests. */
export function shadowRays(): f64 {
  return <f64>shadowRayCount;
}

/** Rays traced since the last call. */
export function takeRayCount(): f64 {
  const count = <f64>rayCount;
  clearRayCount();
  return count;
}

/**
 * Luminance of all scattered light since the last call of clearLimited, and what the firefly limit took of it; 0
 * without a limit.
 */
export function lightScattered(): f64 {
  return scatteredLight;
}
export function lightLimited(): f64 {
  return limitedLight;
}
export { clearLimited };

export {
  beginTrees,
  blockCount,
  buildPart,
  buildPartHere,
  buildTree,
  moveNodes,
  nodeCount,
  partCount,
  placeBox,
  splitTree,
  takePart
} from './build';
export { renderTile } from './film';
export { intersectMany, occludedMany } from './traverse';
export { probeEvaluate, probeFour, probeMath, probePoints, probeSample, probeSolid, probeSurface } from './probe';
export { blurRows, despeckleRows, divideLight, errorRows, meanRows, multiplyLight } from './guided';
export { compareBy, smoothRows } from './smooth';
