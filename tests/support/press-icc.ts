import sharp from 'sharp';

/** The profile of a press that libvips brings along (“Chemical proof” by Graeme W. Gill, in the public domain). */
export async function pressIcc(): Promise<Uint8Array> {
  const inks = await sharp({ create: { width: 1, height: 1, channels: 3, background: '#888' } })
    .toColourspace('cmyk')
    .withIccProfile('cmyk')
    .tiff()
    .toBuffer();
  return new Uint8Array((await sharp(inks).metadata()).icc!);
}
