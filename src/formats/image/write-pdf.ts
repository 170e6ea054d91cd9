/** A picture as a PDF page of its true size, with bleed and crop marks where they are wanted, over pdf-lib. */
import { readFile, writeFile } from 'node:fs/promises';
import { PDFDocument, type PDFImage, PDFName, PDFRawStream, rgb } from 'pdf-lib';
import type { AboutPicture } from '../../core/catalogue/file-kinds';
import { CLEAR_MM, EDGE_MM, HAIRLINE_POINTS, MARK_MM, MIN_FROM_TRIM_MM } from '../../core/finishing/crop-marks';
import { MM_PER_INCH } from '../../core/units/units';

const POINTS_PER_INCH = 72;
const POINTS_PER_MM = POINTS_PER_INCH / MM_PER_INCH;
/** A picture for a screen has no size on paper: as CSS reckons it. */
export const SCREEN_PPI = 96;

export interface PdfPage {
  /** A JPEG of the whole picture with its bleed. */
  jpeg: string;
  /** The ICC profile of its colours; null: those of the viewer. */
  profile: Uint8Array | null;
  width: number;
  height: number;
  ppi: number | null;
  /** Px beyond the trim on each side that the picture has. */
  bleedPx: number;
  marks: boolean;
  about: AboutPicture | null;
}

export async function writePdf(
  path: string,
  { jpeg, profile, width, height, ppi, bleedPx, marks, about }: PdfPage
): Promise<void> {
  const document = await PDFDocument.create();
  const picture = await document.embedJpg(await readFile(jpeg));
  const points = (px: number) => (px / (ppi ?? SCREEN_PPI)) * POINTS_PER_INCH;
  const bleed = points(bleedPx);
  const start = Math.max(bleed + CLEAR_MM * POINTS_PER_MM, MIN_FROM_TRIM_MM * POINTS_PER_MM);
  const margin = marks ? start + (MARK_MM + EDGE_MM) * POINTS_PER_MM - bleed : 0;
  const [w, h] = [points(width), points(height)];
  const page = document.addPage([w + 2 * margin, h + 2 * margin]);
  page.drawImage(picture, { x: margin, y: margin, width: w, height: h });
  page.setBleedBox(margin, margin, w, h);
  page.setTrimBox(margin + bleed, margin + bleed, w - 2 * bleed, h - 2 * bleed);
  if (marks) {
    const length = MARK_MM * POINTS_PER_MM;
    const line = (x1: number, y1: number, x2: number, y2: number) =>
      page.drawLine({
        start: { x: x1, y: y1 },
        end: { x: x2, y: y2 },
        thickness: HAIRLINE_POINTS,
        color: rgb(0, 0, 0)
      });
    const [left, right, low, high] = [margin + bleed, margin + w - bleed, margin + bleed, margin + h - bleed];
    for (const x of [left, right]) {
      line(x, low - start, x, low - start - length);
      line(x, high + start, x, high + start + length);
    }
    for (const y of [low, high]) {
      line(left - start, y, left - start - length, y);
      line(right + start, y, right + start + length, y);
    }
  }
  if (profile) await nameColours(document, picture, profile);
  document.setProducer('Sphaera');
  if (about) {
    document.setTitle(about.title);
    if (about.author) document.setAuthor(about.author);
    document.setCreationDate(new Date(about.date));
    if (about.brief !== null) document.setSubject(about.brief);
  }
  await writeFile(path, await document.save());
}

/** Says by a profile what the numbers of a picture mean (PDF 1.7, ISO 32000-1, 8.6.5.5 ICCBased). */
async function nameColours(document: PDFDocument, picture: PDFImage, profile: Uint8Array): Promise<void> {
  await picture.embed();
  const image = document.context.lookup(picture.ref);
  if (!(image instanceof PDFRawStream)) return;
  const channels = image.dict.get(PDFName.of('ColorSpace')) === PDFName.of('DeviceCMYK') ? 4 : 3;
  const stream = document.context.register(document.context.flateStream(profile, { N: channels }));
  image.dict.set(PDFName.of('ColorSpace'), document.context.obj([PDFName.of('ICCBased'), stream]));
}
