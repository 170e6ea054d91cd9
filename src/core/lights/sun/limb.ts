/**
 * Darkening of the sun's edge by channel: radiance falls as 1 - u (1 - cosine of the angle on the sun's surface), of
 * the same mean over the disc as the power law of Hestroffer and Magnan 1998, Wavelength dependency of the solar limb
 * darkening, at 610, 550 and 465 nm.
 */
import type { Vec3 } from '../../math/vec3';

const weightAt = (micron: number): number => {
  const power = -0.023 + 0.292 / micron;
  return (3 * power) / (power + 2);
};

export const SUN_LIMB: Vec3 = [weightAt(0.61), weightAt(0.55), weightAt(0.465)];

/** Mean of the disc against its middle. */
export const limbMean = (weight: number): number => 1 - weight / 3;
