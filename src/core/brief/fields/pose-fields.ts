/** How the model is posed for a picture, and what is placed beside it. */
import { SEEN } from '../../scene/pose';
import { choice, list, nullable, number, object, text, vector } from './field';

const FAR_M = 1e7;
const MOST_DEG = 3600;

const seen = choice(SEEN, {
  label: 'Seen',
  doc:
    'whole; indirect: the camera looks through it, its shadow and its reflection stay; shadow: its shadow alone stays; ' +
    'out: it is left out.',
  default: 'whole'
});

const POSED_PART = object(
  {
    part: text({
      label: 'Part',
      doc: 'Its path in the model’s tree, names joined by " / "; empty for the whole model.',
      default: '',
      maxLength: 4000,
      must: 'must be the path of a part of the model'
    }),
    seen,
    turn_deg: vector({
      label: 'Turn',
      doc: 'About the X axis, then Y (upright), then Z, in degrees.',
      default: [0, 0, 0],
      min: -MOST_DEG,
      max: MOST_DEG
    }),
    move_m: vector({ label: 'Move', doc: 'After the turn.', default: [0, 0, 0], min: -FAR_M, max: FAR_M }),
    about_m: vector({
      label: 'Pivot',
      doc: 'What it turns about, where the model came in.',
      default: [0, 0, 0],
      min: -FAR_M,
      max: FAR_M
    })
  },
  { label: 'Posed part', doc: 'A part of the model, with all that lies within it.' }
);

export const POSE = list(POSED_PART, {
  label: 'Pose',
  doc: 'Parts that are turned, moved or not seen in this picture. Studio and ground stay where they are.',
  maxItems: 2000,
  what: 'posed parts',
  word: 'pose'
});

export const CURVES = nullable(
  number({
    label: 'Curves',
    doc: 'How wide the lines of the model are drawn; null: they are not shown.',
    default: 5,
    min: 0.01,
    max: 10_000,
    unit: 'mm',
    word: 'pose'
  })
);

const PLACED_MODEL = object(
  {
    name: text({
      label: 'Name',
      doc: 'For lists and masks.',
      default: 'Piece',
      minLength: 1,
      maxLength: 60,
      must: 'must be a name'
    }),
    model: text({
      label: 'Model',
      doc: 'A piece of the library by its key, or the hash of a model that was brought in.',
      default: 'chair',
      minLength: 1,
      maxLength: 64,
      pattern: /^[a-z0-9-]+$/,
      must: 'must be the key of a piece or the hash of a model'
    }),
    position_m: vector({ label: 'Position', doc: 'Of its foot.', default: [0, 0, 0], min: -FAR_M, max: FAR_M }),
    turn_deg: number({
      label: 'Turn',
      doc: 'About the upright axis, counterclockwise from above.',
      default: 0,
      min: -MOST_DEG,
      max: MOST_DEG,
      unit: 'degrees'
    }),
    scale: number({ label: 'Scale', doc: 'Of its own size.', default: 1, min: 0.001, max: 1000 }),
    seen
  },
  { label: 'Placed piece', doc: 'A piece or another model that stands in the picture.' }
);

export const PLACED = list(PLACED_MODEL, {
  label: 'Placed pieces',
  doc: 'Pieces of the library and other models that stand beside the model.',
  maxItems: 2000,
  what: 'placed pieces',
  word: 'pose'
});
