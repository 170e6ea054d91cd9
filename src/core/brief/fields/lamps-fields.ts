/** The lamps of a picture: what differs from the model's, and those of the picture's own; openings that let light in. */
import { MAX_KELVIN, MIN_KELVIN } from '../../color/kelvin';
import { MAX_TINT } from '../../color/white-balance';
import { ADDED_FORMS } from '../../scene/added-lamps';
import { choice, flag, list, nullable, number, object, text, vector } from './field';

const FAR_M = 1e7;

const kelvin = (label: string, doc: string, initial: number) =>
  number({ label, doc, default: initial, min: MIN_KELVIN, max: MAX_KELVIN, unit: 'K' });
const group = (doc: string) =>
  text({
    label: 'Group',
    doc,
    default: '',
    minLength: 1,
    maxLength: 200,
    must: 'must be the name of a group of lamps'
  });
const photometry = nullable(
  text({
    label: 'Photometric file',
    doc: 'How points and spots shine: a path for the command, in the application the hash of an uploaded file.',
    default: '',
    maxLength: 4096,
    must: 'must name a photometric file or be null'
  })
);

const LAMP_SETTING = object(
  {
    group: group('Name of the lamps or glowing parts, without the number at its end.'),
    on: flag({ label: 'On', doc: 'Whether they shine.', default: true }),
    dim_ev: number({ label: 'Dimmer', doc: 'Compared with the model.', default: 0, min: -20, max: 20, unit: 'EV' }),
    kelvin: nullable(kelvin('Colour temperature', 'Null: the model’s own colour.', 3000)),
    photometry
  },
  { label: 'Lamp group', doc: 'What differs from the model for a group of its lamps.' }
);

export const ADDED_LAMP = object(
  {
    name: text({
      label: 'Name',
      doc: 'Its group is that of its name.',
      default: 'Spot',
      minLength: 1,
      maxLength: 60,
      must: 'must be a name'
    }),
    form: choice(ADDED_FORMS, { label: 'Form', doc: 'Its shape.', default: 'spot' }),
    position_m: vector({ label: 'Position', doc: 'Where it is.', default: [0, 2, 0], min: -FAR_M, max: FAR_M }),
    direction: vector({ label: 'Direction', doc: 'Where it shines to.', default: [0, -1, 0], min: -1, max: 1 }),
    turn_deg: number({ label: 'Roll', doc: 'About its direction.', default: 0, min: -360, max: 360, unit: 'degrees' }),
    width_m: number({
      label: 'Width',
      doc: 'Of a panel, strip or window.',
      default: 0.6,
      min: 0.0001,
      max: 1000,
      unit: 'm'
    }),
    height_m: number({
      label: 'Height',
      doc: 'Of a panel, strip or window.',
      default: 0.6,
      min: 0.0001,
      max: 1000,
      unit: 'm'
    }),
    beam_deg: number({
      label: 'Beam angle',
      doc: 'Of a spot: full angle within which it has half its intensity or more.',
      default: 36,
      min: 2,
      max: 178,
      unit: 'degrees'
    }),
    lumen: number({ label: 'Output', doc: 'All the light that it gives.', default: 800, min: 0, max: 1e9, unit: 'lm' }),
    kelvin: kelvin('Colour temperature', 'Colour of its light.', 3000),
    tint: number({
      label: 'Tint',
      doc: 'Hundredths off the black body’s colour, positive towards green.',
      default: 0,
      min: -MAX_TINT,
      max: MAX_TINT
    }),
    photometry
  },
  {
    label: 'Own lamp',
    doc: 'A lamp of the picture’s own.',
    check: ({ direction }) => (Math.hypot(...direction) < 1e-6 ? 'direction must not be zero' : null)
  }
);

const REGROUPED = object(
  {
    lamp: text({
      label: 'Lamp',
      doc: 'Name of a lamp or glowing part.',
      default: '',
      minLength: 1,
      maxLength: 200,
      must: 'must be the name of a lamp'
    }),
    group: group('The group that it belongs to instead.')
  },
  { label: 'Regrouped lamp', doc: 'A lamp that belongs to a group of one’s own.' }
);

export const LAMPS = object(
  {
    groups: list(LAMP_SETTING, {
      label: 'Lamp groups',
      doc: 'Groups that are not listed are as the model has them.',
      maxItems: 500,
      what: 'groups of lamps'
    }),
    only: nullable(
      text({
        label: 'Only',
        doc: 'The one group that is seen alone, or surroundings; null: all.',
        default: '',
        maxLength: 200,
        must: 'must be the name of a group of lamps or null'
      })
    ),
    added: list(ADDED_LAMP, { label: 'Own lamps', doc: 'Lamps of the picture’s own.', maxItems: 64, what: 'lamps' }),
    regrouped: list(REGROUPED, {
      label: 'Regrouped lamps',
      doc: 'Lamps that belong to groups of one’s own.',
      maxItems: 5000,
      what: 'lamps with their groups'
    })
  },
  { label: 'Lamps', doc: 'What differs from the model’s lamps.', word: 'lamps' }
);

const OPENING = object(
  {
    middle_m: vector({ label: 'Middle', doc: 'Its middle.', default: [0, 0, 0], min: -FAR_M, max: FAR_M }),
    normal: vector({ label: 'Normal', doc: 'To either side.', default: [0, 0, 1], min: -1, max: 1 }),
    width_m: number({ label: 'Width', doc: 'Its width.', default: 1, min: 0.01, max: 1000, unit: 'm' }),
    height_m: number({ label: 'Height', doc: 'Its height.', default: 1, min: 0.01, max: 1000, unit: 'm' })
  },
  { label: 'Opening', doc: 'An opening without a pane.' }
);

export const OPENINGS = list(OPENING, {
  label: 'Window openings',
  doc:
    'Openings without a pane through which a room gets its light. They lower its grain, not its brightness. Panes are ' +
    'found by themselves, and nodes of the model whose extras hold opening: true.',
  maxItems: 32,
  what: 'openings',
  word: 'surroundings'
});
