/** What lies around the model and lights it. */
import { MAX_COOL, MAX_KELVIN, MAX_WARM, MIN_KELVIN } from '../../color/kelvin';
import { MAX_TINT } from '../../color/white-balance';
import { CUMULUS_SUNS } from '../../lights/sky/cumulus';
import { ROOM_KEYS } from '../../lights/room/room';
import { LAMP_FORMS, LAMP_ROLES } from '../../lights/studio/lamp';
import { BACKDROPS, STUDIO_SET_KEYS } from '../../lights/studio/sets';
import { choice, flag, list, nullable, number, object, tagged, text, vector, whole } from './field';

const rotation = number({
  label: 'Turned by',
  doc: 'How far it is turned, counter-clockwise from above.',
  default: 0,
  min: -360,
  max: 360,
  unit: 'degrees'
});
const brightness = (range: number) =>
  number({ label: 'Brightness', doc: 'Of all its light.', default: 0, min: -range, max: range, unit: 'EV' });
const strength = (label: string, doc: string, max = 10) =>
  number({ label, doc, default: 0, min: -10, max, unit: 'EV' });
const warmth = (label: string, doc: string) =>
  number({ label, doc, default: 0, min: MAX_COOL, max: MAX_WARM, unit: 'mired' });

const uniform = object(
  {
    radiance: number({
      label: 'Luminance',
      doc: 'Light from every direction.',
      default: 1,
      min: 0,
      max: 1e9,
      unit: 'cd/m2'
    }),
    color: vector({ label: 'Colour', doc: 'Linear Rec. 709 factors.', default: [1, 1, 1], min: 0, max: 1000 })
  },
  { label: 'Uniform light', doc: 'The same light from everywhere.' }
);

export const CUMULUS = object(
  {
    cover: number({ label: 'Cover', doc: 'Share of the layer that is covered.', default: 0.4, min: 0, max: 1 }),
    base_m: number({
      label: 'Base',
      doc: 'Height of the level cloud bases above the ground.',
      default: 1200,
      min: 200,
      max: 6000,
      unit: 'm'
    }),
    seed: whole({ label: 'Variation', doc: 'Another number is another sky.', default: 1, min: 0, max: 1_000_000 }),
    sun: choice(CUMULUS_SUNS, {
      label: 'Sun',
      doc: 'As it comes, or the clouds shifted until the sun is free or behind them.',
      default: 'free'
    })
  },
  { label: 'Cumulus', doc: 'Heaped clouds.' }
);

const sky = object(
  {
    latitude_deg: number({
      label: 'Latitude',
      doc: 'Positive to the north.',
      default: 49.4,
      min: -90,
      max: 90,
      unit: 'degrees'
    }),
    longitude_deg: number({
      label: 'Longitude',
      doc: 'Positive to the east.',
      default: 15.6,
      min: -180,
      max: 180,
      unit: 'degrees'
    }),
    time: text({
      label: 'Date and time',
      doc: 'ISO 8601 with its offset from UTC.',
      default: '2026-06-21T15:00:00+01:00',
      maxLength: 40,
      pattern: /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d+)?)?(Z|[+-]\d{2}:?\d{2})$/,
      must: 'must be a time in ISO 8601 with its offset from UTC, as 2026-06-21T15:00:00+01:00'
    }),
    north_deg: number({
      label: 'North',
      doc: 'How far north lies counter-clockwise from the top of the plan (−Z), seen from above.',
      default: 0,
      min: -360,
      max: 360,
      unit: 'degrees'
    }),
    visibility_km: number({
      label: 'Visibility',
      doc: 'Farthest distance at which a dark hill is still seen.',
      default: 40,
      min: 2,
      max: 200,
      unit: 'km'
    }),
    mirror_deg: nullable(
      number({
        label: 'Mirrored',
        doc: 'Left and right swapped about the upright plane that runs this way; null: the true sky.',
        default: 0,
        min: -360,
        max: 360,
        unit: 'degrees'
      })
    ),
    cloud: number({ label: 'Cirrus', doc: 'Thin cloud, 0 clear to 1 overcast.', default: 0, min: 0, max: 1 }),
    cumulus: nullable(CUMULUS),
    brightness_ev: brightness(10),
    sun_ev: strength('Sun', 'The sun compared with nature.'),
    sky_ev: strength('Sky', 'The sky compared with nature.'),
    moon_ev: strength('Moon', 'The moon compared with nature.', 20),
    sun_warmth: warmth('Sun’s colour', 'Positive is warmer than nature.'),
    sky_warmth: warmth('Sky’s colour', 'Positive is warmer than nature.'),
    moon_warmth: warmth('Moon’s colour', 'Positive is warmer than nature.')
  },
  {
    label: 'Sky',
    doc: 'Sun, moon, stars and sky of a place and moment.',
    check: ({ time }) => (Number.isNaN(Date.parse(time)) ? 'time must be a time in ISO 8601' : null)
  }
);

export const STUDIO_LAMP = object(
  {
    name: text({
      label: 'Name',
      doc: 'Name of the lamp.',
      default: 'Lamp',
      minLength: 1,
      maxLength: 60,
      must: 'must be a name'
    }),
    role: choice(LAMP_ROLES, { label: 'Role', doc: 'What it does in the set.', default: 'accent' }),
    form: choice(LAMP_FORMS, { label: 'Form', doc: 'Its shape.', default: 'softbox' }),
    on: flag({ label: 'On', doc: 'Whether it shines.', default: true }),
    azimuth_deg: number({
      label: 'Angle',
      doc: 'Around the model, 0 in front, counter-clockwise from above.',
      default: 0,
      min: -360,
      max: 360,
      unit: 'degrees'
    }),
    elevation_deg: number({
      label: 'Elevation',
      doc: 'Above the level of the model’s middle.',
      default: 30,
      min: -90,
      max: 90,
      unit: 'degrees'
    }),
    distance_m: number({
      label: 'Distance',
      doc: 'From the model’s middle.',
      default: 2,
      min: 0.001,
      max: 1e5,
      unit: 'm'
    }),
    width_m: number({ label: 'Width', doc: 'Of a ring its diameter.', default: 1, min: 0.0001, max: 1e5, unit: 'm' }),
    height_m: number({ label: 'Height', doc: 'Not used for a ring.', default: 1, min: 0.0001, max: 1e5, unit: 'm' }),
    turn_deg: number({ label: 'Roll', doc: 'About its own axis.', default: 0, min: -360, max: 360, unit: 'degrees' }),
    kelvin: number({
      label: 'Colour temperature',
      doc: 'Colour of its light.',
      default: 5500,
      min: MIN_KELVIN,
      max: MAX_KELVIN,
      unit: 'K'
    }),
    tint: number({
      label: 'Tint',
      doc: 'Hundredths off the black body’s colour, positive towards green.',
      default: 0,
      min: -MAX_TINT,
      max: MAX_TINT
    }),
    lumen: number({
      label: 'Output',
      doc: 'All the light that it gives.',
      default: 10_000,
      min: 0,
      max: 1e12,
      unit: 'lm'
    })
  },
  { label: 'Studio lamp', doc: 'A lamp of a studio.' }
);

const studio = object(
  {
    set: choice(STUDIO_SET_KEYS, {
      label: 'Start from',
      doc: 'The set that it began with: its ceiling, and its lamps and paper where none are stated.',
      default: 'three'
    }),
    lamps: nullable(
      list(STUDIO_LAMP, {
        label: 'Lamps',
        doc: 'Null: those of the set, sized by the model.',
        maxItems: 24,
        what: 'lamps or null'
      })
    ),
    backdrop: nullable(
      choice(BACKDROPS, { label: 'Backdrop', doc: 'Shape of the paper; null: that of the set.', default: 'sweep' })
    ),
    paper: nullable(
      number({
        label: 'Paper',
        doc: 'Share of light that the paper reflects; null: that of the set.',
        default: 0.8,
        min: 0,
        max: 0.95
      })
    ),
    rotation_deg: rotation,
    brightness_ev: brightness(10)
  },
  { label: 'Studio', doc: 'Softboxes around a product on paper.' }
);

const captured = object(
  {
    file: text({
      label: 'Image',
      doc: 'An .hdr or .exr file: a path for the command, in the application the hash of an uploaded image.',
      default: '',
      minLength: 1,
      maxLength: 4096,
      must: 'must name an .hdr or .exr file'
    }),
    rotation_deg: rotation,
    brightness_ev: brightness(20),
    sun: choice(['image', 'true', 'none'], {
      label: 'Sun',
      doc: 'As captured; cut out and a sun of its light and true size in its place; or cut out.',
      default: 'image'
    }),
    sun_turn_deg: number({
      label: 'Sun turned by',
      doc: 'How far the true sun is turned against the image.',
      default: 0,
      min: -360,
      max: 360,
      unit: 'degrees'
    }),
    pitch_deg: number({
      label: 'Pitch',
      doc: 'How far the camera looked up.',
      default: 0,
      min: -90,
      max: 90,
      unit: 'degrees'
    }),
    roll_deg: number({
      label: 'Roll',
      doc: 'How far its right side was lower.',
      default: 0,
      min: -180,
      max: 180,
      unit: 'degrees'
    }),
    in_reflections: flag({
      label: 'Seen in reflections',
      doc: 'Whether mirrors and gloss show it; it lights in any case.',
      default: true
    }),
    most_px: nullable(
      whole({
        label: 'Width at most',
        doc: 'The image is halved until it is no wider; null: as it is.',
        default: 4096,
        min: 512,
        max: 32_768,
        unit: 'px'
      })
    )
  },
  { label: 'Captured', doc: 'An HDR 360° image.' }
);

const room = object(
  {
    room: choice(ROOM_KEYS, { label: 'Room', doc: 'Which room.', default: 'windows' }),
    rotation_deg: rotation,
    brightness_ev: brightness(20)
  },
  { label: 'Room', doc: 'The light of a room that is not modelled.' }
);

export const SURROUNDINGS = tagged(
  { room, uniform, sky, studio, captured },
  {
    label: 'Surroundings',
    doc: 'What lies around the model and lights it.',
    word: 'surroundings',
    initial: 'uniform'
  }
);
