/** What a press makes of colours, by its ICC profile, over sharp (which converts by Little CMS). */
import sharp, { type Sharp } from 'sharp';
import { labOfSrgb } from '../../core/color/lab';
import { PRESS_STEPS, type PressColours } from '../../core/finishing/press-proof';

/** sRGB in, the inks of the press out: 8 bits of each, with its profile. */
export const toPress = (image: Sharp, profile: string): Sharp =>
  image.toColourspace('cmyk').withIccProfile(profile, { attach: true });

/** Throws when the profile cannot be used to make inks of colours and colours of inks. */
export async function pressColours(profile: string): Promise<PressColours> {
  const n = PRESS_STEPS;
  const asked = new Uint8Array(n ** 3 * 3);
  const step = (i: number) => Math.round((255 * i) / (n - 1));
  for (let i = 0; i < n ** 3; i++)
    asked.set([step(i % n), step(Math.floor(i / n) % n), step(Math.floor(i / n ** 2))], i * 3);
  const inks = await toPress(sharp(asked, { raw: { width: n * n, height: n, channels: 3 } }), profile)
    .tiff({ compression: 'none' })
    .toBuffer();
  const { space, channels } = await sharp(inks).metadata();
  if (space !== 'cmyk' || channels !== 4) throw new RangeError('it does not lead to four inks');
  const { data, info } = await sharp(inks)
    .toColourspace('srgb')
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  if (info.channels !== 3) throw new RangeError('its inks do not lead back to colours');
  const shown = Float32Array.from(data, (code) => code / 255);
  const lost = new Float32Array(n ** 3);
  for (let i = 0; i < n ** 3; i++) {
    const [, a0, b0] = labOfSrgb(asked[i * 3]! / 255, asked[i * 3 + 1]! / 255, asked[i * 3 + 2]! / 255);
    const [, a1, b1] = labOfSrgb(shown[i * 3]!, shown[i * 3 + 1]!, shown[i * 3 + 2]!);
    lost[i] = Math.hypot(a1 - a0, b1 - b0);
  }
  return { shown, lost };
}
