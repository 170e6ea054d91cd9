// Adds a run of samples to a tile of the film. Layout of a tile: see layout.ts.
// A pixel's samples are added one after another in their order, so a tile holds the same bits however the run is cut.
import {
  AOV_LAYERS,
  AOV_MATERIALS,
  AOV_OBJECTS,
  FILM_CHANNELS,
  ID_PLACES,
  S_AOVS,
  S_LAYERS,
  S_SEED,
  SETTINGS
} from './layout';
import { aovs } from './aovs';
import {
  backdropB,
  backdropG,
  backdropR,
  backdropShare,
  featureB,
  featureG,
  featureR,
  featureX,
  featureY,
  featureZ,
  groups,
  pathB,
  pathG,
  pathR,
  tracePath
} from './path';

// @ts-ignore: decorator
@inline
function add(address: usize, value: f32): void {
  store<f32>(address, load<f32>(address) + value);
}

// @ts-ignore: decorator
@inline
function add3(address: usize, a: f32, b: f32, c: f32): void {
  add(address, a);
  add(address + 4, b);
  add(address + 8, c);
}

/**
 * Counts a sample for an id in its row of places; what finds no place is counted nowhere, so shares may sum to less
 * than 1.
 */
function countId(places: usize, id: u32): void {
  if (id == 0) return;
  for (let i = 0; i < ID_PLACES; i++, places += 8) {
    const there = load<f32>(places);
    if (there != 0 && there != <f32>id) continue;
    store<f32>(places, <f32>id);
    add(places + 4, 1);
    return;
  }
}

/**
 * Traces samples first to first + count - 1 of the pixels of a rectangle into `buffer`, which holds the sums so far.
 */
export function renderTile(buffer: usize, x: i32, y: i32, width: i32, height: i32, first: i32, count: i32): void {
  const seed = load<u32>(SETTINGS + S_SEED),
    layerBytes = <usize>(load<u32>(SETTINGS + S_LAYERS) * 12),
    aided = load<u32>(SETTINGS + S_AOVS) != 0;
  const layerStride = layerBytes + (aided ? <usize>(AOV_LAYERS * 12) : <usize>0);
  let layers = buffer + <usize>(width * height * FILM_CHANNELS * 4);
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++, buffer += FILM_CHANNELS * 4, layers += layerStride) {
      for (let s = first; s < first + count; s++) {
        tracePath(x + i, y + j, s, seed);
        // a path that is not a number says nothing; it counts as black
        if (pathR - pathR == 0 && pathG - pathG == 0 && pathB - pathB == 0) {
          add3(buffer + (s & 1) * 12, pathR, pathG, pathB);
          add3(buffer + 24, backdropR, backdropG, backdropB);
          for (let at: usize = 0; at < layerBytes; at += 4) add(layers + at, load<f32>(groups + at));
          if (aided) {
            for (let at: usize = 0; at < 36; at += 4) add(layers + layerBytes + at, load<f32>(aovs + at));
          }
        }
        if (aided) {
          const to = layers + layerBytes;
          for (let at: usize = 36; at < 48; at += 4) add(to + at, load<f32>(aovs + at));
          countId(to + AOV_OBJECTS * 4, load<u32>(aovs, 48));
          countId(to + AOV_MATERIALS * 4, load<u32>(aovs, 52));
        }
        add(buffer + 36, backdropShare);
        add3(buffer + 40, featureR, featureG, featureB);
        add3(buffer + 52, featureX, featureY, featureZ);
      }
    }
  }
}
