/** Textures of pictures that were brought in, by their hashes; for the command by their paths. */
import type { ReadPicture } from '../../core/recipe/surfaces';
import type { PictureRequest } from '../../core/scene/surface-pictures';
import type { SceneTexture } from '../../core/scene/scene';
import { readSurfacePicture } from '../../formats/image/surface-picture';
import { inApplication } from './backdrop-file';

const known = new Map<string, SceneTexture>();
// large pictures are tens of megabytes: as many are kept as a picture is likely to change between
const MOST_KNOWN = 8;

/** Throws a RangeError that names what cannot be read. */
export const pictureReader =
  (pathOf: (file: string) => string = inApplication): ReadPicture =>
  async (request) => {
    const key = JSON.stringify(request);
    const there = known.get(key);
    if (there) return there;
    const texture = await readSurfacePicture(request, pathOf).catch((error: unknown) => {
      throw new RangeError(
        `the ${WHAT[request.kind]} "${nameOf(request)}" cannot be read (${(error as Error).message}); ` +
          'bring it in again, or take it off the material'
      );
    });
    if (known.size >= MOST_KNOWN) known.delete(known.keys().next().value!);
    known.set(key, texture);
    return texture;
  };

const WHAT = {
  color: 'picture of the colour',
  roughness: 'picture of the roughness',
  normal: 'picture of the relief'
} as const;
const nameOf = ({ color, opacity, roughness, normal, height }: PictureRequest): string =>
  (color ?? opacity ?? roughness ?? normal ?? height ?? '').slice(0, 16);
