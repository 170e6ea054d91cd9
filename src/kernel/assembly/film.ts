// Adds a run of samples to a tile of the film. Layout of a tile: see layout.ts.
// A pixel's samples are added one after another in their order, so a tile holds the same bits however the run is cut.
import { FILM_CHANNELS, S_SEED, SETTINGS } from './layout';
import { backdropB, backdropG, backdropR, backdropShare, featureB, featureG, featureR, featureX, featureY, featureZ, pathB, pathG, pathR, tracePath } from './path';

/** Traces samples first to first + count - 1 of the pixels of a rectangle into `buffer`, which holds the sums so far. */
export function renderTile(buffer: usize, x: i32, y: i32, width: i32, height: i32, first: i32, count: i32): void {
  const seed = load<u32>(SETTINGS + S_SEED);
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++, buffer += FILM_CHANNELS * 4) {
      for (let s = first; s < first + count; s++) {
        tracePath(x + i, y + j, s, seed);
        const half: usize = buffer + (s & 1) * 12;
        // a path that is not a number says nothing; it counts as black
        if (pathR - pathR == 0 && pathG - pathG == 0 && pathB - pathB == 0) {
          store<f32>(half, load<f32>(half) + pathR);
          store<f32>(half, load<f32>(half, 4) + pathG, 4);
          store<f32>(half, load<f32>(half, 8) + pathB, 8);
          store<f32>(buffer, load<f32>(buffer, 24) + backdropR, 24);
          store<f32>(buffer, load<f32>(buffer, 28) + backdropG, 28);
          store<f32>(buffer, load<f32>(buffer, 32) + backdropB, 32);
        }
        store<f32>(buffer, load<f32>(buffer, 36) + backdropShare, 36);
        store<f32>(buffer, load<f32>(buffer, 40) + featureR, 40);
        store<f32>(buffer, load<f32>(buffer, 44) + featureG, 44);
        store<f32>(buffer, load<f32>(buffer, 48) + featureB, 48);
        store<f32>(buffer, load<f32>(buffer, 52) + featureX, 52);
        store<f32>(buffer, load<f32>(buffer, 56) + featureY, 56);
        store<f32>(buffer, load<f32>(buffer, 60) + featureZ, 60);
      }
    }
  }
}
