/** A sun of true size in the place of one that was captured, and how it turns with the image. */
import { scale, type Vec3 } from '../../math/vec3';
import { SUN_RADIUS_RAD } from '../sky/atmosphere';
import { SUN_LIMB } from '../sun/limb';
import type { SurroundingsLight } from '../surroundings-light';
import type { FoundSun } from './find-sun';

/** A disc of the sun's true size with the light that was found; in the frame of the image before it is turned. */
export function trueSun({ direction, irradiance }: FoundSun): NonNullable<SurroundingsLight['sun']> {
  const oneMinusCos = 2 * Math.sin(SUN_RADIUS_RAD / 2) ** 2;
  return { direction, oneMinusCos, limb: SUN_LIMB, radiance: scale(irradiance, 1 / (2 * Math.PI * oneMinusCos)) };
}

/**
 * A direction of an image in the world, when the image is turned about +Y by so many radians, as the kernel turns it.
 */
export function turnedWithImage([x, y, z]: Vec3, radians: number): Vec3 {
  const [c, s] = [Math.cos(radians), Math.sin(radians)];
  return [c * x + s * z, y, c * z - s * x];
}
