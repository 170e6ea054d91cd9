/** Doors of the format room. One line a format. */
export { readExr } from './exr/read-exr';
export { writeExr } from './exr/write-exr';
export { createIo } from './gltf/io';
export { readScene } from './gltf/read-scene';
export { type FloatImage, readHdr } from './hdr/read-hdr';
export { encodeJpeg, encodePng, type RgbaImage } from './image/encode';
export type { PhotometricFile } from './photometry/photometric-file';
export { readLm63 } from './photometry/read-lm63';
export { readEulumdat } from './photometry/read-eulumdat';
export { readPhotometric } from './photometry/read-photometric';
export { PhotometryRefused } from './photometry/refused';
