/** The size of a picture, the part of it that is rendered, and where it will be seen. */
import { FILE_KINDS } from '../../catalogue/file-kinds';
import { ORIENTATIONS, PAPER_NAMES } from '../../catalogue/papers';
import { MAX_BLEED_MM, MAX_SIDE_PX, PPI, SIDE_MM } from '../../output/edit-size';
import { resolveSize } from '../../output/size';
import { choice, nullable, number, object, shapes, text, whole } from './field';

const side = (label: string, initial: number) =>
  whole({ label, doc: `${label} of the picture.`, default: initial, min: 1, max: MAX_SIDE_PX, unit: 'px' });
const sideMm = (label: string, initial: number) =>
  number({ label, doc: `${label} of the sheet.`, default: initial, min: SIDE_MM.min, max: SIDE_MM.max, unit: 'mm' });
const ppi = number({ label: 'Density', doc: 'Pixels an inch.', default: 200, min: PPI.min, max: PPI.max, unit: 'ppi' });

const pixels = object(
  { width_px: side('Width', 600), height_px: side('Height', 400) },
  { label: 'Pixels', doc: 'A picture for screens.' }
);
const tooLarge = (size: Parameters<typeof resolveSize>[0]) => {
  const { width_px, height_px } = resolveSize(size);
  return Math.max(width_px, height_px) > MAX_SIDE_PX
    ? `is ${width_px} x ${height_px} px; a side has at most ${MAX_SIDE_PX} px, so lower the size or the ppi`
    : null;
};
const paper = object(
  {
    paper: choice(PAPER_NAMES, { label: 'Paper', doc: 'A paper format.', default: 'A3' }),
    orientation: choice(ORIENTATIONS, { label: 'Orientation', doc: 'How it lies.', default: 'landscape' }),
    ppi
  },
  { label: 'Paper', doc: 'A paper format and its density.', check: tooLarge }
);
const sheet = object(
  { width_mm: sideMm('Width', 420), height_mm: sideMm('Height', 297), ppi },
  { label: 'Sheet', doc: 'A sheet of any size and its density.', check: tooLarge }
);

/** At most MAX_SIDE_PX a side: a file of more passes 4 GB. */
const size = (doc: string) =>
  shapes(
    { pixels, paper, sheet },
    {
      label: 'Size',
      doc,
      initial: 'pixels',
      amount: true,
      choose: (value) =>
        'paper' in value || 'orientation' in value
          ? 'paper'
          : 'width_mm' in value || 'height_mm' in value
            ? 'sheet'
            : 'pixels'
    }
  );

export const SIZE = {
  ...size('Pixels; a paper and its density; or a sheet in mm and its density.'),
  word: 'size' as const
};

const share = (label: string, doc: string, least: number, initial: number) =>
  number({ label, doc, default: initial, min: least, max: least === 0 ? 0.9999 : 1 });

export const PATCH = nullable(
  object(
    {
      x: share('Left', 'Left edge, as a share of the width.', 0, 0),
      y: share('Top', 'Upper edge, as a share of the height.', 0, 0),
      width: share('Width', 'As a share of the width.', 0.0001, 1),
      height: share('Height', 'As a share of the height.', 0.0001, 1)
    },
    {
      label: 'Patch',
      doc: 'The rectangle that alone is rendered, pixel for pixel where it lies, exposed as the whole; null: all.',
      word: 'size',
      amount: true,
      check: ({ x, y, width, height }) =>
        x + width > 1.000001 || y + height > 1.000001
          ? 'reaches beyond the picture; x + width and y + height may be 1 at most'
          : null
    }
  )
);

export const BLEED = number({
  label: 'Bleed',
  doc: 'How far a sheet’s picture reaches beyond the trim on each side; the framing is the trimmed sheet’s.',
  default: 0,
  min: 0,
  max: MAX_BLEED_MM,
  unit: 'mm',
  word: 'size',
  amount: true
});

export const SEEN = object(
  {
    destination: nullable(
      object(
        {
          name: text({
            label: 'Name',
            doc: 'Its name.',
            default: 'Wall',
            minLength: 1,
            maxLength: 80,
            must: 'must be a name'
          }),
          size: size('The size that it asks for.')
        },
        { label: 'Destination', doc: 'What was chosen, and the size that it asks for; null: nothing.' }
      )
    ),
    distance_m: nullable(
      number({
        label: 'Viewing distance',
        doc: 'From the eye; null: a screen.',
        default: 1,
        min: 0.1,
        max: 100,
        unit: 'm'
      })
    ),
    file: choice(FILE_KINDS, { label: 'File', doc: 'The file that it is handed over in.', default: 'png' })
  },
  { label: 'Destination', doc: 'Where the picture will be seen.', word: 'size', decides: 'neither' }
);
