/** The channels of an OpenEXR beside the picture, and where their values lie in a film tile. */
import {
  AOV_DEPTH,
  AOV_DIRECT,
  AOV_HITS,
  AOV_MATERIALS,
  AOV_OBJECTS,
  AOV_OCCLUDED,
  AOV_SPECULAR,
  AOV_TRANSMITTED,
  CHANNELS,
  EVEN,
  FEATURE_CHANNELS,
  FEATURES,
  type FilmLayers,
  ID_PLACES,
  layerCount,
  layersAt,
  ODD
} from '../../core/film/film';

const rgb = (name: string) => ['R', 'G', 'B'].map((c) => `${name}.${c}`);
const places = (name: string) =>
  Array.from({ length: ID_PLACES }, (_, i) => [`${name}.id${i}`, `${name}.share${i}`]).flat();

/**
 * Depth is in m to the first surface; ids count from 1 in the header's objectNames and materialNames; ambientOcclusion is 1
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
          'ambientOcclusion.Y',
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
  for (let c = 0; c < FEATURE_CHANNELS; c++) out[at++] = data[p + FEATURES + c]! * k;
  const groups = layersAt(i, pixels, layerCount(layers));
  for (let c = 0; c < layers.groups.length * 3; c++) out[at++] = data[groups + c]! * k;
  if (!layers.aovs) return;
  const from = groups + layers.groups.length * 3;
  for (let c = 0; c < 3; c++) out[at++] = data[from + AOV_DIRECT + c]! * k;
  for (let c = 0; c < 3; c++) out[at++] = (data[p + EVEN + c]! + data[p + ODD + c]! - data[from + AOV_DIRECT + c]!) * k;
  for (const first of [AOV_SPECULAR, AOV_TRANSMITTED])
    for (let c = 0; c < 3; c++) out[at++] = data[from + first + c]! * k;
  const hits = data[from + AOV_HITS]!;
  // where samples met nothing nothing occludes, and it is as deep as those that met something say
  out[at++] = 1 - (hits - data[from + AOV_OCCLUDED]!) * k;
  out[at++] = hits > 0 ? data[from + AOV_DEPTH]! / hits : Number.POSITIVE_INFINITY;
  for (const first of [AOV_OBJECTS, AOV_MATERIALS]) {
    for (let c = 0; c < ID_PLACES; c++) {
      out[at++] = data[from + first + c * 2]!;
      out[at++] = data[from + first + c * 2 + 1]! * k;
    }
  }
}
