/**
 * Lamps dimmed after the render: each light group has a layer of the film, and light adds up, so a picture with a group
 * at twice its level is the picture and once more that layer.
 *
 * Where the picture is denoised its layers are too, each by itself; they are then rescaled so that together they are the
 * denoised picture, whose total stays right whatever the dimmers say.
 */
import { warmthGain } from '../color/kelvin';
import type { Vec3 } from '../math/vec3';
import { sameGroup } from '../scene/lamp-groups';
import { SURROUNDINGS_LAYER } from '../scene/light-groups';
import { BEHIND, LIGHT } from './light';

/** How a layer differs from the render. */
export interface Dimmer {
  group: string;
  on: boolean;
  dim_ev: number;
  warmth_mired: number;
}

export interface LayerGain {
  /** Index of the layer. */
  layer: number;
  /** What is added of it, by channel: gain less one. */
  added: Vec3;
  /** What came straight from the surroundings is theirs. */
  behind: boolean;
}

/** Of the layers that are not as rendered; dimmers of layers that the film does not have say nothing. */
export function layerGains(dimmers: readonly Dimmer[], groups: readonly string[]): LayerGain[] {
  return groups.flatMap((group, layer) => {
    const dimmer = dimmers.find((d) => sameGroup(d.group, group));
    if (!dimmer) return [];
    const level = dimmer.on ? 2 ** dimmer.dim_ev : 0;
    const tint = warmthGain(dimmer.warmth_mired);
    const added: Vec3 = [level * tint[0] - 1, level * tint[1] - 1, level * tint[2] - 1];
    return added.every((v) => v === 0) ? [] : [{ layer, added, behind: group === SURROUNDINGS_LAYER }];
  });
}

/**
 * Adds to the light of `pixels` pixels what the dimmers change; `layers` holds means, three a layer and pixel: floats, or
 * the bits of halves with the `values` that they stand for.
 */
export function dimLight(
  light: Float32Array,
  layers: Float32Array | Uint16Array,
  count: number,
  pixels: number,
  gains: readonly LayerGain[],
  values: Float32Array | null = null
): void {
  for (const { layer, added, behind } of gains) {
    const [r, g, b] = added;
    for (let i = 0, o = 0, l = layer * 3; i < pixels; i++, o += LIGHT, l += count * 3) {
      const x = values ? values[layers[l]!]! : layers[l]!;
      const y = values ? values[layers[l + 1]!]! : layers[l + 1]!;
      const z = values ? values[layers[l + 2]!]! : layers[l + 2]!;
      // grain may leave a little less than nothing
      light[o] = Math.max(0, light[o]! + r * x);
      light[o + 1] = Math.max(0, light[o + 1]! + g * y);
      light[o + 2] = Math.max(0, light[o + 2]! + b * z);
      if (!behind) continue;
      for (let c = 0; c < 3; c++) light[o + BEHIND + c] = light[o + BEHIND + c]! * (1 + added[c]!);
    }
  }
}

// Layers that together have less than this of the denoised light say nothing of where it came from.
const LEAST_SHARE = 1e-3;

/**
 * Layers of a denoised picture, in place of their own: `cleaned` are the layers as a filter left them, `denoised` the rgb
 * of the picture as it left that, `amount` how much of it is shown. Where the cleaned layers are nearly nothing, the
 * rendered ones are rescaled instead.
 */
export function settleLayers(
  layers: Float32Array,
  cleaned: Float32Array | null,
  denoised: Float32Array,
  count: number,
  pixels: number,
  amount: number
): void {
  for (let i = 0; i < pixels; i++)
    for (let c = 0; c < 3; c++) {
      const first = i * count * 3 + c;
      const whole = denoised[i * 3 + c]!;
      const sumOf = (of: Float32Array) => {
        let sum = 0;
        for (let g = 0; g < count; g++) sum += Math.max(0, of[first + g * 3]!);
        return sum;
      };
      let from = cleaned ?? layers;
      let sum = sumOf(from);
      if (cleaned && sum < whole * LEAST_SHARE) {
        from = layers;
        sum = sumOf(from);
      }
      const k = sum > 0 ? whole / sum : 0;
      for (let g = 0; g < count; g++) {
        const at = first + g * 3;
        layers[at] = layers[at]! + (Math.max(0, from[at]!) * k - layers[at]!) * amount;
      }
    }
}
