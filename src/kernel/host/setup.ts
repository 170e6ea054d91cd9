/**
 * All that a host needs for a render beside the scene pack, as bytes: made by the server, which alone reckons what the
 * film depends on, so that a browser's own mathematics never does. Layout: u32 length of the JSON, the JSON, padding to
 * 4 bytes, the rig when it is sent along, then, when the light is an image and is sent along, f32 rgb pixels and f32
 * probability, f32 threshold, u32 alias, f32 rgb mean of its importance grid, then what clouds leave of the stars.
 * Little-endian.
 */
import type { ExposureRule } from '../../core/brief/exposure';
import type { Stars, SurroundingsLight } from '../../core/lights/surroundings-light';
import type { RenderSettings } from './settings';

export interface RenderSetup {
  /** Key of the pack. */
  pack: string;
  packBytes: number;
  /** The rig for that pack, null when the other side has the one of this key. */
  rigKey: string;
  rigBytes: number;
  rig: Uint8Array | null;
  /**
   * Whether it is the very pack and light that a proof of this brief would use; else a pack with another origin or a
   * coarse sky, to see by.
   */
  exact: boolean;
  /** Not yet exposed. */
  settings: RenderSettings;
  exposure: ExposureRule;
  samples: number;
  grain: number | null;
  minSamples: number;
  lightKey: string;
}

type Image = NonNullable<SurroundingsLight['image']>;
type ImageFrame = Omit<Image, 'pixels' | 'grid'> & { columns: number; rows: number };

/** `withLight`: false when the other side has the light of this key. */
export function encodeSetup(setup: RenderSetup, withLight: boolean): Uint8Array {
  const { rig, ...rest } = setup;
  const { light, ...settings } = setup.settings;
  const image = light.image;
  let frame: ImageFrame | null = null;
  if (image) {
    const { pixels: _pixels, grid, ...plain } = image;
    frame = { ...plain, columns: grid.width, rows: grid.height };
  }
  const json = new TextEncoder().encode(
    JSON.stringify({
      ...rest,
      settings,
      light: {
        even: light.even,
        sun: light.sun,
        stars: light.stars && { ...light.stars, clear: light.stars.clear?.byteLength ?? null },
        frame
      },
      sent: withLight,
      rigSent: rig !== null
    })
  );
  const start = (4 + json.length + 3) & ~3;
  const parts: (Uint8Array | Float32Array | Uint32Array)[] = rig ? [rig] : [];
  if (image && withLight)
    parts.push(
      image.pixels,
      image.grid.probability,
      image.grid.threshold,
      image.grid.alias,
      image.grid.mean,
      ...(light.stars?.clear ? [light.stars.clear] : [])
    );
  const out = new Uint8Array(start + parts.reduce((sum, p) => sum + p.byteLength, 0));
  new DataView(out.buffer).setUint32(0, json.length, true);
  out.set(json, 4);
  let at = start;
  for (const part of parts) {
    out.set(new Uint8Array(part.buffer, part.byteOffset, part.byteLength), at);
    at += part.byteLength;
  }
  return out;
}

/**
 * `known`: a light that came with that key, when it was not sent; throws a RangeError when it is wanted and missing.
 */
export function decodeSetup(bytes: Uint8Array, known: (key: string) => SurroundingsLight | null): RenderSetup {
  const length = new DataView(bytes.buffer, bytes.byteOffset).getUint32(0, true);
  const { light, sent, rigSent, ...rest } = JSON.parse(new TextDecoder().decode(bytes.slice(4, 4 + length))) as Omit<
    RenderSetup,
    'settings' | 'rig'
  > & {
    settings: Omit<RenderSettings, 'light'>;
    light: Pick<SurroundingsLight, 'even' | 'sun'> & {
      frame: ImageFrame | null;
      stars: (Omit<Stars, 'clear'> & { clear: number | null }) | null;
    };
    sent: boolean;
    rigSent: boolean;
  };
  let at = (4 + length + 3) & ~3;
  const rig = rigSent ? bytes.slice(at, at + rest.rigBytes) : null;
  if (rig) at += rig.byteLength;
  let image: Image | null = null;
  let clear: Uint8Array | null = null;
  if (light.frame) {
    const { columns, rows, ...frame } = light.frame;
    if (sent) {
      const take = (count: number) => {
        const part = bytes.slice(at, at + count * 4);
        at += count * 4;
        return part.buffer;
      };
      image = {
        ...frame,
        pixels: new Float32Array(take(frame.width * frame.height * 3)),
        grid: {
          width: columns,
          height: rows,
          probability: new Float32Array(take(columns * rows)),
          threshold: new Float32Array(take(columns * rows)),
          alias: new Uint32Array(take(columns * rows)),
          mean: new Float32Array(take(columns * rows * 3))
        }
      };
      if (light.stars?.clear) clear = bytes.slice(at, at + light.stars.clear);
    } else {
      const before = known(rest.lightKey);
      if (!before?.image)
        throw new RangeError(`decodeSetup: expected the light ${rest.lightKey} to be known, got none`);
      image = { ...frame, pixels: before.image.pixels, grid: before.image.grid };
      clear = before.stars?.clear ?? null;
    }
  }
  return {
    ...rest,
    rig,
    settings: {
      ...rest.settings,
      light: { even: light.even, sun: light.sun, image, stars: light.stars && { ...light.stars, clear } }
    }
  };
}
