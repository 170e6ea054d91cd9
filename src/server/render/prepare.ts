/**
 * From model and brief to everything a render needs: the scene with its studio, the pack, the surroundings' light, the camera,
 * the exposure. Refusals say which word of the brief cannot be met.
 */
import { whiteLuminance } from '../../core/brief/exposure';
import type { Brief } from '../../core/brief/brief';
import { type CameraFrame, createCameraFrame } from '../../core/camera/lens';
import type { FreeViewpoint } from '../../core/camera/viewpoint';
import { buildImportanceGrid } from '../../core/lights/captured/importance';
import { makeSky } from '../../core/lights/sky/sky-image';
import { buildStudio } from '../../core/lights/studio/studio';
import { skyDirection, sunPosition } from '../../core/lights/sun/position';
import type { SurroundingsLight } from '../../core/lights/surroundings-light';
import { scale } from '../../core/math/vec3';
import { resolveSize, scaleSize } from '../../core/output/size';
import { addSurfaces } from '../../core/scene/add-surface';
import { MATERIAL_DEFAULTS, type Scene } from '../../core/scene/scene';
import { radians } from '../../core/units/units';
import type { FloatImage } from '../../formats/hdr/read-hdr';
import { BriefRefused } from './refused';

/** The viewpoint as numbers: a named camera of the model is looked up. */
export function resolveViewpoint(scene: Pick<Scene, 'cameras'>, brief: Brief): FreeViewpoint {
  const view = brief.viewpoint;
  if (!('camera' in view)) return view;
  const camera = scene.cameras.find((c) => c.name === view.camera);
  if (!camera) {
    const names = scene.cameras.map((c) => `"${c.name}"`).join(', ');
    throw new BriefRefused('viewpoint.camera', `viewpoint.camera "${view.camera}" is not in the model; ${names ? `it has ${names}` : 'it has no camera, so state position_m and target_m'}`);
  }
  return { ...camera, sensor_height_mm: 24, f_number: null, focus_m: null };
}

export function resolveCamera(view: FreeViewpoint, width: number, height: number): CameraFrame {
  const camera = createCameraFrame(view, width / height);
  if (!camera) throw new BriefRefused('viewpoint', 'viewpoint.position_m and viewpoint.target_m are the same point; move one of them');
  return camera;
}

/** The scene as lit: a studio adds its backdrop and softboxes as surfaces. */
export function withStudio(scene: Scene, brief: Brief, view: FreeViewpoint): Scene {
  if (brief.surroundings.kind !== 'studio') return scene;
  const { min, max } = scene.bounds;
  const cameraDistance = Math.hypot(view.position_m[0] - (min[0] + max[0]) / 2, view.position_m[1] - min[1], view.position_m[2] - (min[2] + max[2]) / 2);
  // rounded up in steps, so that small moves of the camera keep the studio, and its pack, as they are
  const stepped = 2 ** (Math.ceil(Math.log2(Math.max(cameraDistance, 1e-3)) * 2) / 2);
  const studio = buildStudio({ min, max, rotationDeg: brief.surroundings.rotation_deg, brightnessEv: brief.surroundings.brightness_ev, cameraDistance: stepped });
  return addSurfaces(
    scene,
    studio.surfaces.map(({ positions, normals, indices, kind, radiance }) => ({
      positions,
      normals,
      indices,
      material: { ...MATERIAL_DEFAULTS, name: `studio ${kind}`, baseColor: kind === 'paper' ? [...studio.paper, 1] : [0, 0, 0, 1], roughness: 0.9, ior: kind === 'paper' ? 1.3 : 1.5, emissive: radiance, twoSided: kind === 'paper' }
    }))
  );
}

function sunOf(sky: { latitude_deg: number; longitude_deg: number; time: string; north_deg: number }) {
  const position = sunPosition(Date.parse(sky.time), sky.latitude_deg, sky.longitude_deg);
  return { ...position, direction: skyDirection(position.azimuth, position.elevation, sky.north_deg) };
}

// The sky is smooth but for the sun, which is sampled by itself: a small grid stays in the processor's cache.
const SKY_GRID = 128;

/** `captured` is the image of captured surroundings. */
export function makeLight(brief: Brief, scene: Pick<Scene, 'bounds'>, captured: FloatImage | null): SurroundingsLight {
  const around = brief.surroundings;
  if (around.kind === 'even') return { even: scale(around.color, around.radiance), image: null, sun: null };
  const brightness = 2 ** around.brightness_ev;
  if (around.kind === 'studio') {
    const studio = buildStudio({ ...scene.bounds, rotationDeg: 0, brightnessEv: around.brightness_ev, cameraDistance: 1 });
    return { even: studio.ceiling, image: null, sun: null };
  }
  if (around.kind === 'sky') {
    const sky = makeSky({ direction: sunOf(around).direction, visibility_km: around.visibility_km, cloud: around.cloud });
    const grid = buildImportanceGrid(sky.pixels, sky.width, sky.height, SKY_GRID);
    return { even: null, image: { ...sky, scale: brightness, rotation: 0, grid }, sun: sky.sun && { ...sky.sun, radiance: scale(sky.sun.radiance, brightness) } };
  }
  if (!captured) throw new BriefRefused('surroundings.file', `surroundings.file "${around.file}" was not found`);
  return { even: null, image: { ...captured, scale: brightness, rotation: radians(around.rotation_deg), grid: buildImportanceGrid(captured.pixels, captured.width, captured.height) }, sun: null };
}

export function proofSize(brief: Brief): { width: number; height: number; ppi: number | null } {
  const sheet = resolveSize(brief.size);
  const { width_px, height_px } = scaleSize(sheet, brief.quality.scale);
  return { width: width_px, height: height_px, ppi: sheet.ppi === null ? null : sheet.ppi * brief.quality.scale };
}

export const fireflyLimit = (brief: Brief, ev100: number): number => (brief.quality.firefly === null ? 0 : brief.quality.firefly * whiteLuminance(ev100));
