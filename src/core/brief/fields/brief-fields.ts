/** The brief: everything that decides a picture, section by section. */
import { BLEED, PATCH, SEEN, SIZE } from './size-fields';
import { flag, nullable, number, object, shapes, tagged, text, type ValueOf, whole } from './field';
import { FINISH } from './finish-fields';
import { LAMPS, OPENINGS } from './lamps-fields';
import { LABELS, MATERIALS } from './materials-fields';
import { CURVES, PLACED, POSE } from './pose-fields';
import { QUALITY } from './quality-fields';
import { SURROUNDINGS } from './surroundings-fields';
import { SECTION, VIEWPOINT } from './viewpoint-fields';

/** Raised when a field changes its name or its meaning (migrate.ts); a new field needs no new version. */
export const BRIEF_VERSION = 2;

const clay = object(
  {
    grey: number({ label: 'Grey', doc: 'Share of light that it reflects.', default: 0.6, min: 0.02, max: 0.95 }),
    material: nullable(
      text({
        label: 'Material',
        doc: 'The model’s material that is over everything; null: grey.',
        default: '',
        maxLength: 200,
        must: 'must be the name of a material of the model or null'
      })
    ),
    glass: flag({ label: 'Glass stays glass', doc: 'Whether glass stays glass.', default: true })
  },
  { label: 'Clay', doc: 'One matte material over everything, to judge light and form; lamps glow on.' }
);
const LOOK = tagged(
  { photographic: object({}, { label: 'Photographic', doc: 'The materials as they are.' }), clay },
  { label: 'Look', doc: 'How the model is shown.', word: 'look', initial: 'photographic' }
);

const EXPOSURE = shapes(
  {
    fixed: object(
      {
        ev100: number({
          label: 'Exposure',
          doc: 'As a light meter says it; displayed white is 1.2 × 2^ev100 cd/m² (ISO 12232).',
          default: 12,
          min: -16,
          max: 24,
          unit: 'EV'
        })
      },
      { label: 'Fixed', doc: 'A light meter’s value.' }
    ),
    metered: object(
      { metered: flag({ label: 'Automatic', doc: 'Always true.', default: true }) },
      {
        label: 'Automatic',
        doc: 'Measures a small picture of the same frame first.',
        check: ({ metered }) => (metered ? null : 'metered must be true')
      }
    ),
    camera: object(
      {
        f_number: number({ label: 'f-number', doc: 'Of the exposure only.', default: 8, min: 0.5, max: 128 }),
        shutter_s: number({ label: 'Shutter', doc: 'Exposure time.', default: 0.01, min: 1e-6, max: 1e5, unit: 's' }),
        iso: number({ label: 'ISO', doc: 'Sensitivity.', default: 100, min: 1, max: 1e6 })
      },
      { label: 'Camera', doc: 'As a camera states it: log2(N²/t × 100/S).' }
    )
  },
  {
    label: 'Exposure',
    doc: 'How bright the picture is.',
    word: 'exposure',
    initial: 'fixed',
    choose: (value) =>
      'metered' in value
        ? 'metered'
        : 'shutter_s' in value || 'iso' in value || 'f_number' in value
          ? 'camera'
          : 'fixed'
  }
);

const shadow = object(
  {
    height_m: nullable(
      number({ label: 'Height', doc: 'Null: the model’s foot.', default: 0, min: -1e7, max: 1e7, unit: 'm' })
    ),
    polish: number({
      label: 'Reflection',
      doc: 'Share of light that it mirrors, seen from above; it shows the model only.',
      default: 0,
      min: 0,
      max: 1
    }),
    roughness: number({ label: 'Roughness', doc: 'Of the reflection; 0 is a mirror.', default: 0.2, min: 0, max: 1 }),
    reach: number({
      label: 'Fades out at',
      doc: 'Where it has faded, in sizes of the model.',
      default: 4,
      min: 0.5,
      max: 100,
      unit: 'sizes of the model'
    })
  },
  {
    label: 'Shadow only',
    doc: 'An endless level plane that shows the surroundings as if it were not there, but for the model’s shadow.'
  }
);
const GROUND = tagged(
  { none: object({}, { label: 'None', doc: 'Nothing but what the model brings.' }), shadow },
  {
    label: 'Ground',
    doc: 'What the model stands on. In a studio it takes the place of the paper.',
    word: 'ground',
    initial: 'none'
  }
);

export const BRIEF = object(
  {
    version: whole({
      label: 'Version',
      doc: 'Version of this document.',
      default: BRIEF_VERSION,
      min: BRIEF_VERSION,
      max: BRIEF_VERSION,
      decides: 'neither'
    }),
    viewpoint: VIEWPOINT,
    section: SECTION,
    surroundings: SURROUNDINGS,
    look: LOOK,
    materials: MATERIALS,
    labels: LABELS,
    exposure: EXPOSURE,
    size: SIZE,
    patch: PATCH,
    bleed_mm: BLEED,
    seen: SEEN,
    quality: QUALITY,
    ground: GROUND,
    open_backs: flag({
      label: 'Look through backs',
      doc:
        'Whether the camera looks through one-sided surfaces from behind, as into a dolls’ house; they still stand in ' +
        'the way of light.',
      default: false
    }),
    pose: POSE,
    placed: PLACED,
    curves_mm: CURVES,
    openings: OPENINGS,
    lamps: LAMPS,
    finish: FINISH
  },
  { label: 'Brief', doc: 'Everything that decides a picture.', since: 1, decides: 'film', word: 'viewpoint' }
);

export type Brief = ValueOf<typeof BRIEF>;
