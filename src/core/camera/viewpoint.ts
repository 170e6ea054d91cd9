/** Where a picture is seen from: stated freely, or by the name of a camera in the model. Metres, +Y up. */
export interface FreeViewpoint {
  position_m: [number, number, number];
  target_m: [number, number, number];
  up: [number, number, number];
  /** `panorama`: equirectangular, once around where the picture is twice as wide as high. */
  projection: 'perspective' | 'parallel' | 'panorama';
  /** Of a perspective: verticals stay straight, because the camera is level and its lens shifted. */
  upright: boolean;
  focal_length_mm: number;
  /** Height of the imaginary sensor, which the picture's height fills. */
  sensor_height_mm: number;
  /** Null: everything is sharp. */
  f_number: number | null;
  /** Distance of the sharp plane; null focuses on the target. */
  focus_m: number | null;
  /** Height of the picture in metres, for a parallel projection. */
  height_m: number | null;
}

export type Viewpoint = FreeViewpoint | { camera: string };
