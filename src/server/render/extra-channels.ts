/** The channels of an OpenEXR beside the picture, and where their values lie in a film tile. */
import {
  AOV_MATERIALS,
  AOV_OBJECTS,
  CHANNELS,
  FEATURES,
  type FilmLayers,
  ID_PLACES,
  layerCount
} from '../../core/film/film';

const rgb = (name: string) => ['R', 'G', 'B'].map((c) => `${name}.${c}`);
const places = (name: string) =>
  Array.from({ length: ID_PLACES }, (_, i) => [`${name}.id${i}`, `${name}.share${i}`]).flat();

/**
 * Depth is in m to the first surface; ids count from 1 in the header's objectNames and materialNames; openness is 1
 * where nothing is near.
 */
export function extraChannels(layers: FilmLayers): string[] {
  if (layerCount(layers) === 0) return [];
  return [
    ...rgb('reflectance'),
    'normal.X',
    'normal.Y',
    'normal.Z',
    ...layers.groups.flatMap(rgb),
    ...(layers.aovs
      ? [
          ...rgb('direct'),
          ...rgb('indirect'),
          ...rgb('mirrored'),
          ...rgb('throughGlass'),
          'openness.Y',
          'depth.Z',
          ...places('object'),
          ...places('material')
        ]
      : [])
  ];
}

/** Writes the values of pixel `i` in the order of extraChannels; `k` is one over the samples. */
export function readExtra(
  data: Float32Array,
  i: number,
  pixels: number,
  layers: FilmLayers,
  k: number,
  out: Float32Array,
  at: number
): void {
  const p = i * CHANNELS;
  for (let c = 0; c < 6; c++) out[at++] = data[p + FEATURES + c]! * k;
  const stride = layerCount(layers) * 3;
  let from = pixels * CHANNELS + i * stride;
  for (let c = 0; c < layers.groups.length * 3; c++) out[at++] = data[from + c]! * k;
  if (!layers.aovs) return;
  from += layers.groups.length * 3;
  for (let c = 0; c < 3; c++) out[at++] = data[from + c]! * k;
  for (let c = 0; c < 3; c++) out[at++] = (data[p + c]! + data[p + 3 + c]! - data[from + c]!) * k;
  for (let c = 3; c < 9; c++) out[at++] = data[from + c]! * k;
  const hits = data[from + 11]!;
  // where samples met nothing it is open, and as deep as those that met something say
  out[at++] = 1 - (hits - data[from + 9]!) * k;
  out[at++] = hits > 0 ? data[from + 10]! / hits : Number.POSITIVE_INFINITY;
  for (const first of [AOV_OBJECTS, AOV_MATERIALS]) {
    for (let c = 0; c < ID_PLACES; c++) {
      out[at++] = data[from + first + c * 2]!;
      out[at++] = data[from + first + c * 2 + 1]! * k;
    }
  }
}
