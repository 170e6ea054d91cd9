// The kernel's door: everything the host may call.
import { CONTEXT_AIDS, CONTEXT_BYTES, CONTEXT_LAMPS, CONTEXT_LAYERS, CONTEXT_PORTALS, CONTEXT_STACK, CONTEXT_VERTICES, CONTEXTS } from './layout';
import * as lamps from './lamps';
import { addedLight, clearLimited, removedLight, setRays } from './path';
import * as portals from './portals';
import { setScratch } from './surface';
import { clearRayCount, rayCount, setStack } from './traverse';

/** Gives this instance the context of a thread; call once after instantiation. */
export function setThread(thread: i32): void {
  const context: usize = CONTEXTS + thread * CONTEXT_BYTES;
  setRays(context, context + CONTEXT_LAYERS, context + CONTEXT_AIDS);
  portals.setScratch(context + CONTEXT_PORTALS);
  lamps.setScratch(context + CONTEXT_LAMPS);
  setScratch(context + CONTEXT_VERTICES);
  setStack(context + CONTEXT_STACK);
}

/** Rays traced since the last call. */
export function takeRayCount(): f64 {
  const count = <f64>rayCount;
  clearRayCount();
  return count;
}

/** The share of indirect light that the firefly limit took since the last call; 0 without a limit. */
export function takeLimited(): f64 {
  const share = addedLight > 0 ? removedLight / addedLight : 0;
  clearLimited();
  return share;
}

export { beginTrees, blockCount, buildTree, moveNodes, nodeCount, placeBox } from './build';
export { renderTile } from './film';
export { intersectMany, occludedMany } from './traverse';
export { probeEvaluate, probePoints, probeSample, probeSolid, probeSurface } from './probe';
