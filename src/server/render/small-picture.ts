/** A small denoised picture of a small scene, for lists: rendered in memory, in a second or so. */
import type { Brief } from '../../core/brief/brief';
import { FinishedFilm, MemoryDenoised } from '../../core/film/denoised';
import { CHANNELS, tilesOf } from '../../core/film/film';
import { MemoryFilm } from '../../core/film/store';
import { denoiseFilm } from '../../core/finishing/denoise/denoise-film';
import { createDeveloper } from '../../core/finishing/develop';
import { encodeSamples } from '../../core/finishing/encode-rows';
import { resolveSize } from '../../core/output/size';
import type { Scene } from '../../core/scene/scene';
import type { FloatImage } from '../../formats/hdr/read-hdr';
import { encodePng } from '../../formats/image/encode';
import { guidedFilter } from '../../kernel/host/guided-filter';
import { config } from '../config';
import { prepare, run } from './session';

/** A PNG of the brief's size. `captured`: the image of captured surroundings. */
export async function smallPicture(
  scene: Scene,
  brief: Brief,
  captured: FloatImage | null,
  module: WebAssembly.Module
): Promise<Uint8Array> {
  const { width_px: width, height_px: height } = resolveSize(brief.size);
  const prepared = await prepare({ scene, brief, captured, module, threads: config.threads });
  const film = new MemoryFilm();
  await run(prepared, film, module, config.threads, {});
  const denoised = new MemoryDenoised();
  const { white } = prepared;
  await denoiseFilm({ film, width, height, white }, guidedFilter(module), denoised, () => {}, false);
  const finished = new FinishedFilm(film, denoised, 1, tilesOf(width, height));
  const linear = new Float32Array(width * height * 4);
  const develop = createDeveloper({ width, height, white, finish: brief.finish });
  for (const tile of tilesOf(width, height))
    develop(
      {
        ...tile,
        data: await finished.read(tile.index, tile.width * tile.height * CHANNELS),
        samples: brief.quality.samples
      },
      linear
    );
  return encodePng({ pixels: encodeSamples(linear, width, 0, '8 bit', 'sRGB'), width, height }, null, false);
}
