/** A small denoised picture of a small scene, for lists: rendered in memory, in a second or so. */
import type { Brief } from '../../core/brief/brief';
import { MemoryDenoised } from '../../core/film/denoised';
import { MemoryFilm } from '../../core/film/store';
import { denoiseFilm } from '../../core/finishing/denoise/denoise-film';
import { resolveSize } from '../../core/output/size';
import type { Scene } from '../../core/scene/scene';
import type { FloatImage } from '../../formats/hdr/read-hdr';
import { encodePng } from '../../formats/image/encode';
import { guidedFilter } from '../../kernel/host/guided-filter';
import { config } from '../config';
import { developFilm } from './film-rows';
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
  const view = { film, layers: prepared.layers, width, height, white: prepared.white };
  await denoiseFilm(view, guidedFilter(module), denoised, () => {}, false);
  const cleaned = { picture: denoised, layers: null };
  const image = await developFilm({ ...view, cleaned }, { ...brief.finish, denoise: 1 });
  return encodePng(image, null, false);
}
