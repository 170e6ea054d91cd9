/** Coarser meshes, by meshoptimizer: edges are collapsed while shape and shading change least. */
import { MeshoptSimplifier } from 'meshoptimizer';
import type { MeshReducer } from '../core/scene/slim-copy';

/** Of the mesh's extent: how far its surface may move at most. */
const MAX_ERROR = 0.03;
/** What a normal that turns counts against a surface that moves. */
const NORMAL_WEIGHTS = [0.5, 0.5, 0.5];

export async function openReducer(): Promise<MeshReducer> {
  await MeshoptSimplifier.ready;
  return {
    samePlaces: (positions) => MeshoptSimplifier.generatePositionRemap(positions, 3),
    reduce: ({ positions, normals, indices }, triangles, keepEdges) =>
      MeshoptSimplifier.simplifyWithAttributes(
        indices,
        positions,
        3,
        normals,
        3,
        NORMAL_WEIGHTS,
        null,
        triangles * 3,
        MAX_ERROR,
        keepEdges ? ['LockBorder'] : []
      )[0]
  };
}
