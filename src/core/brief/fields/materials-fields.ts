/** What materials of the file become in a picture, and what is stuck on its faces. */
import { colorText } from './color-text';
import { choice, flag, list, nullable, number, object, text, vector } from './field';

const colour = (label: string, doc: string) => colorText(label, doc, '#808080');
const share = (label: string, doc: string) => number({ label, doc, default: 0.5, min: 0, max: 1 });
const file = (label: string, doc: string) =>
  text({ label, doc, default: '', minLength: 1, maxLength: 500, must: 'must name a picture' });
const FILE_DOC = 'A path for the command, in the application the hash of a picture that was brought in.';

const CHANGE = object(
  {
    color: nullable(colour('Colour', 'Of the whole; a pattern keeps its differences about it.')),
    shine: nullable(share('Shine', '0 matte, 1 a mirror; of a coated material, of its coat.')),
    metal: nullable(share('Metal', '0 none, 1 bare metal.')),
    clear: nullable(share('Clearness', '0 opaque, 1 clear as glass.')),
    tint: nullable(colour('Tint', 'The colour that white light has after the thickness of tint.')),
    tint_cm: number({ label: 'Thickness of tint', doc: 'See tint.', default: 1, min: 0.01, max: 1000, unit: 'cm' }),
    relief: nullable(
      number({ label: 'Relief', doc: 'Times the depth that it has.', default: 1, min: 0, max: 5, unit: 'times' })
    ),
    brushed: nullable(share('Brushing', 'How much longer highlights are across the brushing.')),
    brushed_deg: number({
      label: 'Direction of brushing',
      doc: 'From the tangent of the surface.',
      default: 0,
      min: -180,
      max: 180,
      unit: 'degrees'
    }),
    glow_nits: nullable(
      number({
        label: 'Light output',
        doc: 'Luminance of its own light.',
        default: 300,
        min: 0,
        max: 1e7,
        unit: 'cd/m2'
      })
    ),
    pattern_cm: nullable(
      number({
        label: 'Size of the pattern',
        doc: 'A board’s width, a brick’s length, the way between threads or years.',
        default: 10,
        min: 0.01,
        max: 10_000,
        unit: 'cm'
      })
    ),
    pattern_along: nullable(
      choice(['x', 'y', 'z'], {
        label: 'Direction of the pattern',
        doc: 'The axis of the part that it runs along.',
        default: 'x'
      })
    ),
    variation: nullable(share('Variation', 'How much parts of the same material differ in tone.'))
  },
  { label: 'Change', doc: 'What is other than in the material; null: as it is there.' }
);

const TEXTURE = object(
  {
    color: nullable(file('Picture of the colour', FILE_DOC)),
    roughness: nullable(file('Picture of the roughness', `Dark is shiny, light is matte. ${FILE_DOC}`)),
    normal: nullable(file('Picture of the normals', `Of a tangent space whose y points up. ${FILE_DOC}`)),
    height: nullable(file('Picture of the height', `Light is high; not with a picture of the normals. ${FILE_DOC}`)),
    height_mm: number({ label: 'Height', doc: 'From black to white.', default: 2, min: 0, max: 1000, unit: 'mm' }),
    opacity: nullable(file('Picture of the opacity', `Black is a hole. ${FILE_DOC}`)),
    projection: choice(['box', 'planar', 'cylinder', 'file'], {
      label: 'Projection',
      doc: 'From six sides, from one, around an axis, or by the texture coordinates of the file.',
      default: 'box'
    }),
    axis: choice(['x', 'y', 'z'], {
      label: 'Axis',
      doc: 'Of the part: that a planar projection looks along, or that a cylinder stands about.',
      default: 'y'
    }),
    width_cm: number({
      label: 'Width',
      doc: 'Of the picture on the surface; its height follows. By the coordinates of the file it is not asked.',
      default: 100,
      min: 0.01,
      max: 100_000,
      unit: 'cm'
    }),
    repeats: number({
      label: 'Repeats',
      doc: 'By the coordinates of the file: times as often as there.',
      default: 1,
      min: 0.001,
      max: 1000,
      unit: 'times'
    }),
    turn_deg: number({ label: 'Turn', doc: 'Counterclockwise.', default: 0, min: -360, max: 360, unit: 'degrees' }),
    across_cm: number({ label: 'Across', doc: 'Moved to the right.', default: 0, min: -1e5, max: 1e5, unit: 'cm' }),
    up_cm: number({ label: 'Up', doc: 'Moved up.', default: 0, min: -1e5, max: 1e5, unit: 'cm' }),
    varied: flag({
      label: 'Repeats broken up',
      doc: 'Each patch is taken from another place of the pictures, so that no repeats are seen; for what has no large pattern.',
      default: false
    })
  },
  { label: 'Pictures on it', doc: 'Pictures of one’s own on the surface; null: none.' }
);

const ASSIGNED = object(
  {
    material: text({
      label: 'Material of the file',
      doc: 'Its name, in whatever letters; a * stands for any letters: "Oak*".',
      default: '',
      minLength: 1,
      maxLength: 200,
      must: 'must be the name of a material of the model'
    }),
    part: nullable(
      text({
        label: 'Part',
        doc: 'Path of a part that alone is meant, with all within it; null: wherever the material is.',
        default: '',
        maxLength: 1000,
        must: 'must be the path of a part of the model'
      })
    ),
    becomes: nullable(
      text({
        label: 'Becomes',
        doc: 'A material of the library by its key; null: it stays that of the file.',
        default: 'oak-oiled',
        minLength: 1,
        maxLength: 60,
        pattern: /^[a-z0-9-]+$/,
        must: 'must be the key of a material of the library'
      })
    ),
    change: nullable(CHANGE),
    texture: nullable(TEXTURE)
  },
  { label: 'Assigned material', doc: 'A rule by names; the first that speaks of a material decides.' }
);

export const MATERIALS = list(ASSIGNED, {
  label: 'Materials',
  doc: 'What materials of the file become. Holes and glow stay those of the file where nothing is said of them.',
  maxItems: 500,
  what: 'assigned materials',
  word: 'look'
});

const LABEL = object(
  {
    name: text({ label: 'Name', doc: 'Its name.', default: 'Label', maxLength: 80, must: 'must be a name' }),
    file: file('Picture', FILE_DOC),
    position_m: vector({ label: 'Place', doc: 'Of its middle on a face.', default: [0, 0, 0], min: -1e7, max: 1e7 }),
    normal: vector({ label: 'Faces', doc: 'Away from the face.', default: [0, 0, 1], min: -1, max: 1 }),
    width_cm: number({ label: 'Width', doc: 'Its height follows.', default: 10, min: 0.01, max: 1e5, unit: 'cm' }),
    turn_deg: number({ label: 'Turn', doc: 'Counterclockwise.', default: 0, min: -360, max: 360, unit: 'degrees' }),
    shine: share('Shine', '0 matte, 1 a mirror.'),
    shown: flag({ label: 'Shown', doc: 'Whether it is there.', default: true })
  },
  {
    label: 'Label',
    doc: 'A picture that lies on what is under it, as printed or stuck on.',
    check: ({ normal }) => (Math.hypot(...normal) > 1e-9 ? null : 'normal must point somewhere')
  }
);

export const LABELS = list(LABEL, {
  label: 'Labels',
  doc: 'Pictures on faces of the model.',
  maxItems: 100,
  what: 'labels',
  word: 'look'
});
