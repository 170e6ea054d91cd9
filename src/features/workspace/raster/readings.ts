/** What is read off the model as it is drawn and posed: places, parts, materials and openings under the pointer. */
import { Box3, type Intersection, type Material, Mesh, type Object3D, type Plane, Raycaster, Vector3 } from 'three';
import { type CameraFrame, rayThrough } from '../../../core/camera/lens';
import type { Vec3 } from '../../../core/math/vec3';
import { createRandom } from '../../../core/sampling/random';
import { type Opening, openingAt } from '../../../core/scene/opening';
import { isWithin } from '../../../core/scene/part-paths';
import { spreadOver } from '../../../core/scene/spread';
import type { DrawnModel } from '../view';
import { smoothNormal, towardsViewer, trianglesInWorld } from './mesh-surface';
import { pathOf } from './model-objects';

export class ModelReadings implements DrawnModel {
  constructor(
    private readonly root: Object3D,
    /** The frame that is seen now; null where the viewpoint looks nowhere. */
    private readonly frame: () => CameraFrame | null,
    /** What lies before this plane is cut away. */
    private readonly section: () => Plane | null
  ) {}

  /**
   * The model's surface under a place of the picture, whose corners are 0, 0 and 1, 1; its smooth normal, towards the
   * viewer. Null beside it.
   */
  pick(x: number, y: number): { point: Vec3; normal: Vec3 } | null {
    const found = this.hitAt(x, y);
    if (!found) return null;
    const { hit, along } = found;
    return {
      point: [hit.point.x, hit.point.y, hit.point.z],
      normal: towardsViewer(smoothNormal(hit.object as Mesh, hit), hit.object, along)
    };
  }

  /** The path of the part under a place of the picture; null beside the model. */
  pickPart(x: number, y: number): string | null {
    const found = this.hitAt(x, y);
    return found ? pathOf(found.hit.object) : null;
  }

  pickMaterial(x: number, y: number): { material: string; part: string } | null {
    const found = this.hitAt(x, y);
    const part = found && pathOf(found.hit.object);
    if (!found || part === null) return null;
    const { hit } = found;
    const material = ([] as Material[]).concat((hit.object as Mesh).material)[hit.face?.materialIndex ?? 0];
    return material ? { material: material.name, part } : null;
  }

  /** The opening that the pane under a place of the picture fills; its normal towards the viewer. */
  pickOpening(x: number, y: number): Opening | null {
    const found = this.hitAt(x, y);
    const hit = found?.hit;
    if (!hit?.face || hit.faceIndex == null) return null;
    const mesh = hit.object as Mesh;
    const triangles = trianglesInWorld(mesh);
    if (!triangles) return null;
    const { positions, indices } = triangles;
    return openingAt(positions, indices, hit.faceIndex, towardsViewer(hit.face.normal.clone(), mesh, found!.along));
  }

  lowestOf(path: string): number | null {
    const box = new Box3();
    for (const mesh of this.meshesWithin(path)) box.expandByObject(mesh, true);
    return box.isEmpty() ? null : box.min.y;
  }

  placesOn(path: string, count: number, seed: number): Vec3[] {
    const corners: number[] = [];
    const at = new Vector3();
    for (const { geometry, matrixWorld } of this.meshesWithin(path)) {
      const { position } = geometry.attributes;
      const { index } = geometry;
      if (!position) continue;
      for (let i = 0; i < (index?.count ?? position.count); i++) {
        at.fromBufferAttribute(position, index ? index.getX(i) : i).applyMatrix4(matrixWorld);
        corners.push(at.x, at.y, at.z);
      }
    }
    return spreadOver(corners, count, createRandom(seed));
  }

  private meshesWithin(path: string): Mesh[] {
    this.root.updateMatrixWorld(true);
    const out: Mesh[] = [];
    this.root.traverse((object) => {
      if (object instanceof Mesh && isWithin(pathOf(object) ?? '', path)) out.push(object);
    });
    return out;
  }

  /** What is hit first, with the direction of the look that hit it. */
  private hitAt(x: number, y: number): { hit: Intersection; along: Vector3 } | null {
    // it is brought up to date by drawing, and behind a picture nothing is drawn
    this.root.updateMatrixWorld(true);
    const frame = this.frame();
    if (!frame) return null;
    const { origin, way } = rayThrough(frame, x, y);
    const ray = new Raycaster(new Vector3(...origin), new Vector3(...way));
    const section = this.section();
    const hit = ray
      .intersectObject(this.root, true)
      .find(
        ({ object, face, point }) =>
          face && object instanceof Mesh && object.visible && !(section && section.distanceToPoint(point) < 0)
      );
    return hit ? { hit, along: ray.ray.direction } : null;
  }
}
