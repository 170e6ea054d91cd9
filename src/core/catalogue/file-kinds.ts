/** The files that a brief may name, whose size is forecast. */
export const FILE_KINDS = ['png', 'jpg', 'exr'] as const;
export type FileKind = (typeof FILE_KINDS)[number];

/** The files that a picture is handed over in. */
export const DELIVERY_KINDS = [...FILE_KINDS, 'tif', 'webp', 'avif', 'hdr', 'pdf', 'ora'] as const;
export type DeliveryKind = (typeof DELIVERY_KINDS)[number];

export const FILE_KIND_NAMES: Record<DeliveryKind, string> = {
  png: 'PNG',
  jpg: 'JPEG',
  exr: 'EXR',
  tif: 'TIFF',
  webp: 'WebP',
  avif: 'AVIF',
  hdr: 'HDR',
  pdf: 'PDF',
  ora: 'OpenRaster'
};
export const MEDIA_TYPES: Record<DeliveryKind, string> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  exr: 'image/x-exr',
  tif: 'image/tiff',
  webp: 'image/webp',
  avif: 'image/avif',
  hdr: 'image/vnd.radiance',
  pdf: 'application/pdf',
  ora: 'image/openraster'
};

/** Linear light as it was rendered, without the finish. */
export const isLinear = (kind: DeliveryKind): kind is 'exr' | 'hdr' => kind === 'exr' || kind === 'hdr';
export const holdsClear = (kind: DeliveryKind): boolean => kind !== 'jpg' && kind !== 'hdr' && kind !== 'pdf';
/** Whose loss is chosen. */
export const hasQuality = (kind: DeliveryKind): kind is 'jpg' | 'webp' | 'avif' | 'pdf' =>
  kind === 'jpg' || kind === 'webp' || kind === 'avif' || kind === 'pdf';
export const holds16Bits = (kind: DeliveryKind): kind is 'png' | 'tif' => kind === 'png' || kind === 'tif';

/** Which colours the numbers of a file mean: those of common screens, of wide ones, or the inks of a press (CMYK). */
export const FILE_COLOURS = ['srgb', 'p3', 'press'] as const;
export type FileColours = (typeof FILE_COLOURS)[number];

const P3_KINDS: readonly DeliveryKind[] = ['png', 'jpg', 'tif', 'webp', 'avif', 'pdf'];
const PRESS_KINDS: readonly DeliveryKind[] = ['jpg', 'tif', 'pdf'];
export const holdsColours = (kind: DeliveryKind, colors: FileColours): boolean =>
  colors === 'srgb' || (colors === 'p3' ? P3_KINDS : PRESS_KINDS).includes(kind);

/** How a file is written. */
export interface FileOptions {
  kind: DeliveryKind;
  /** Of each channel; 16 in PNG and TIFF alone. */
  bits: 8 | 16;
  colors: FileColours;
  /** The ICC profile of the press, where its inks are meant: a path for the command, in the application its hash. */
  press: string | null;
  /** 1 to 100, of files that lose something. */
  quality: number;
  /** Longest side of a smaller copy, px; null: as large as its film. */
  long_px: number | null;
  /** Of OpenEXR: 16 bits a channel instead of 32, but for depth and ids. */
  half: boolean;
  /** Of OpenEXR: without light layers, masks and passes. */
  pictureOnly: boolean;
  /** What is written about the picture into the file; null: nothing. */
  about: AboutPicture | null;
}

export interface AboutPicture {
  title: string;
  /** Empty where it is not to be told. */
  author: string;
  /** ISO 8601. */
  date: string;
  /** The brief as JSON; null where it stays out. */
  brief: string | null;
}

export const QUALITY_DEFAULT = 94;
export const FILE_DEFAULTS: Omit<FileOptions, 'kind'> = {
  bits: 8,
  colors: 'srgb',
  press: null,
  quality: QUALITY_DEFAULT,
  long_px: null,
  half: false,
  pictureOnly: false,
  about: null
};
