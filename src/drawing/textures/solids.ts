/** Solid textures of the demo's materials: invented mixtures, colours as linear reflectances. */
import type { SolidTexture } from '../../core/materials/solid-texture';
import type { Vec3 } from '../../core/math/vec3';

const solid = (
  kind: SolidTexture['kind'],
  size_m: number,
  colors: [Vec3, Vec3, Vec3],
  more: Partial<SolidTexture> = {}
): SolidTexture => ({ kind, size_m, colors, relief_m: 0, roughness_change: 0.1, axis: 'x', seed: 1, ...more });

export const SOLIDS = {
  oak: solid(
    'wood',
    0.0042,
    [
      [0.2, 0.115, 0.055],
      [0.5, 0.335, 0.19],
      [0.09, 0.055, 0.03]
    ],
    { relief_m: 0.0002, roughness_change: 0.2, axis: 'y' }
  ),
  walnut: solid(
    'wood',
    0.006,
    [
      [0.085, 0.042, 0.022],
      [0.25, 0.138, 0.073],
      [0.04, 0.022, 0.014]
    ],
    { relief_m: 0.00015, roughness_change: 0.2, seed: 9 }
  ),
  veined: solid(
    'stone',
    0.14,
    [
      [0.52, 0.5, 0.47],
      [0.8, 0.79, 0.77],
      [0.2, 0.18, 0.165]
    ],
    { seed: 4 }
  ),
  poured: solid(
    'concrete',
    0.35,
    [
      [0.36, 0.35, 0.335],
      [0.52, 0.51, 0.49],
      [0.1, 0.098, 0.094]
    ],
    { relief_m: 0.0012, roughness_change: 0.08 }
  ),
  brick: solid(
    'brick',
    0.25,
    [
      [0.27, 0.085, 0.045],
      [0.42, 0.17, 0.095],
      [0.46, 0.435, 0.4]
    ],
    { relief_m: 0.006, roughness_change: 0.1, seed: 2 }
  ),
  terrazzo: solid(
    'terrazzo',
    0.022,
    [
      [0.66, 0.63, 0.585],
      [0.14, 0.2, 0.18],
      [0.58, 0.27, 0.17]
    ],
    { roughness_change: 0.08, seed: 6 }
  ),
  woven: solid(
    'cloth',
    0.0016,
    [
      [0.34, 0.31, 0.27],
      [0.5, 0.47, 0.42],
      [0.06, 0.055, 0.05]
    ],
    { relief_m: 0.0005, roughness_change: 0 }
  ),
  stoneware: solid(
    'terrazzo',
    0.0028,
    [
      [0.37, 0.345, 0.31],
      [0.11, 0.095, 0.08],
      [0.46, 0.43, 0.385]
    ],
    { roughness_change: 0.05, seed: 17 }
  ),
  trowelled: solid(
    'noise',
    0.5,
    [
      [0.735, 0.715, 0.675],
      [0.81, 0.79, 0.745],
      [0, 0, 0]
    ],
    { relief_m: 0.004, roughness_change: 0.03, seed: 5 }
  ),
  'green cloth': solid(
    'cloth',
    0.0018,
    [
      [0.15, 0.2, 0.15],
      [0.26, 0.31, 0.25],
      [0.04, 0.05, 0.04]
    ],
    { relief_m: 0.0006, roughness_change: 0, seed: 8 }
  ),
  'rust cloth': solid(
    'cloth',
    0.0018,
    [
      [0.42, 0.18, 0.085],
      [0.55, 0.27, 0.14],
      [0.1, 0.05, 0.03]
    ],
    { relief_m: 0.0006, roughness_change: 0, seed: 14 }
  ),
  ripples: solid(
    'noise',
    0.35,
    [
      [1, 1, 1],
      [1, 1, 1],
      [1, 1, 1]
    ],
    { relief_m: 0.03, seed: 3 }
  )
} satisfies Record<string, SolidTexture>;
