/** The viewpoint of a brief as a camera. */
import type { Brief } from '../brief/brief';
import { BriefRefused } from '../brief/refused';
import { type CameraFrame, createCameraFrame } from '../camera/lens';
import type { FreeViewpoint } from '../camera/viewpoint';
import { aspectOf, widened } from '../output/fit-frame';
import type { Scene, SceneCamera } from '../scene/scene';

/** The viewpoint as numbers: a named camera of the model is looked up. */
export function resolveViewpoint(scene: Pick<Scene, 'cameras'>, brief: Brief): FreeViewpoint {
  const view = brief.viewpoint;
  if (!('camera' in view)) return view;
  const camera = scene.cameras.find((c) => c.name === view.camera);
  if (!camera) {
    const names = scene.cameras.map((c) => `"${c.name}"`).join(', ');
    throw new BriefRefused(
      'viewpoint.camera',
      `viewpoint.camera "${view.camera}" is not in the model; ` +
        `${names ? `it has ${names}` : 'it has no camera, so state position_m and target_m'}`
    );
  }
  return cameraView(camera, aspectOf(brief.size));
}

/** A camera of the model on a sheet of a proportion: nothing of the frame that it was composed for is cut off. */
export function cameraView({ name: _name, aspect, ...lens }: SceneCamera, sheetAspect: number): FreeViewpoint {
  const view: FreeViewpoint = { ...lens, upright: false, sensor_height_mm: 24, f_number: null, focus_m: null };
  return aspect ? widened(view, aspect, sheetAspect) : view;
}

export function resolveCamera(view: FreeViewpoint, width: number, height: number): CameraFrame {
  const camera = createCameraFrame(view, width / height);
  if (!camera)
    throw new BriefRefused(
      'viewpoint',
      'viewpoint.position_m and viewpoint.target_m are the same point; move one of them'
    );
  return camera;
}
