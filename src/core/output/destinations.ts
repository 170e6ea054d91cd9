/**
 * Where a picture will be seen: the size that place asks for, how far away one stands, and the file that it takes.
 * Sizes of screens and of messages are common practice, no source; densities of sheets follow from the distance
 * (askedPpi).
 */
import { askedPpi, paperMm } from './size';
import type { FileKind } from '../catalogue/file-kinds';
import type { Orientation, Paper } from '../catalogue/papers';
import type { SizeChoice } from '../catalogue/size-choice';

export interface Destination {
  name: string;
  size: SizeChoice;
  /** From the eye, m; null for screens, whose pixels are what they are. */
  distance_m: number | null;
  file: FileKind;
}

const screen = (name: string, width_px: number, height_px: number, file: FileKind): Destination => ({
  name,
  size: { width_px, height_px },
  distance_m: null,
  file
});

function sheet(name: string, paper: Paper, orientation: Orientation, distance_m: number, file: FileKind): Destination {
  return {
    name,
    size: { paper, orientation, ppi: askedPpi(distance_m, Math.max(...paperMm(paper, orientation))) },
    distance_m,
    file
  };
}

/** Where a sheet is seen from when nothing is said: in the hands. */
export const ARMS_LENGTH_M = 0.6;

const rollUp = { width_mm: 850, height_mm: 2000 };

/** Of a brief that goes there. */
export const seenAt = ({ name, size, distance_m, file }: Destination) => ({
  destination: { name, size },
  distance_m,
  file
});

export const DESTINATIONS: readonly Destination[] = [
  screen('Phone message', 1080, 1350, 'jpg'),
  screen('E-mail', 1600, 1000, 'jpg'),
  screen('Square post', 1080, 1080, 'jpg'),
  screen('Web banner', 2400, 800, 'jpg'),
  screen('Slide 16:9', 1920, 1080, 'png'),
  screen('Web page', 1440, 900, 'png'),
  screen('4K screen', 3840, 2160, 'png'),
  sheet('Portfolio page', 'A4', 'landscape', 0.4, 'png'),
  sheet('A4 handout', 'A4', 'portrait', 0.4, 'png'),
  sheet('Letter handout', 'Letter', 'portrait', 0.4, 'png'),
  sheet('A3 board at arm’s length', 'A3', 'landscape', ARMS_LENGTH_M, 'png'),
  sheet('A1 panel at 1.5 m', 'A1', 'landscape', 1.5, 'png'),
  sheet('A0 poster at 2 m', 'A0', 'portrait', 2, 'png'),
  { name: 'Roll-up at 2 m', size: { ...rollUp, ppi: askedPpi(2, rollUp.height_mm) }, distance_m: 2, file: 'jpg' }
];
