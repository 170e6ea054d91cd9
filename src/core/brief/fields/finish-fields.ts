/** What is done to a film for display: never needs a new render. */
import { MAX_COOL, MAX_KELVIN, MAX_WARM, MIN_KELVIN } from '../../color/kelvin';
import { MAX_TINT } from '../../color/white-balance';
import { CORNERS } from '../../catalogue/corners';
import { TONE_CHARACTERS } from '../../catalogue/tone-characters';
import { colorText } from './color-text';
import { choice, flag, list, nullable, number, object, tagged, text } from './field';

const colour = (label: string, initial: string) => colorText(label, 'Six digits.', initial);

const own = object({}, { label: 'Surroundings', doc: 'The surroundings are seen.' });
const clear = object({}, { label: 'Transparent', doc: 'Nothing is there.' });
const plain = object(
  { lightness: number({ label: 'Lightness', doc: 'CIE L*.', default: 90, min: 0, max: 100, unit: 'L*' }) },
  { label: 'Plain', doc: 'A uniform grey.' }
);
const graded = object(
  {
    from: colour('From', '#8a8f94'),
    to: colour('To', '#e8e6e2'),
    angle_deg: number({
      label: 'Direction',
      doc: 'Where to: 0 downward, 90 to the right.',
      default: 0,
      min: -360,
      max: 360,
      unit: 'degrees'
    }),
    spread: number({ label: 'Gradient width', doc: 'Share of the picture.', default: 1, min: 0, max: 2 })
  },
  { label: 'Gradient', doc: 'Two colours.' }
);
const paper = object(
  {
    lightness: number({ label: 'Lightness', doc: 'CIE L*.', default: 92, min: 0, max: 100, unit: 'L*' }),
    corner: nullable(
      choice(CORNERS, { label: 'Towards', doc: 'The corner that it grows lighter to.', default: 'upper left' })
    ),
    fall: number({
      label: 'Lighter by',
      doc: 'How much lighter it is there; negative is darker.',
      default: 0,
      min: -60,
      max: 60,
      unit: 'L*'
    }),
    grain: number({ label: 'Paper texture', doc: 'Its fine texture.', default: 1, min: 0, max: 10, unit: 'L*' })
  },
  { label: 'Paper', doc: 'A sheet of paper.' }
);
const share = (label: string, doc: string) => number({ label, doc, default: 0.5, min: 0, max: 1 });
const picture = object(
  {
    file: text({
      label: 'Picture',
      doc: 'A path for the command, in the application the hash of an uploaded picture.',
      default: '',
      minLength: 1,
      maxLength: 500,
      must: 'must name a picture'
    }),
    across: share('Across', 'Where it lies where it overhangs: 0 at the left edge, 1 at the right.'),
    down: share('Down', 'Where it lies where it overhangs: 0 at the upper edge, 1 at the lower.'),
    enlarged: number({
      label: 'Enlarged',
      doc: 'Times as large as it must be to cover the sheet.',
      default: 1,
      min: 1,
      max: 8,
      unit: 'times'
    }),
    lighter_ev: number({ label: 'Brightness', doc: 'Of the picture.', default: 0, min: -4, max: 4, unit: 'EV' })
  },
  { label: 'Picture', doc: 'A picture that covers the sheet.' }
);

export const BACKGROUND = tagged(
  { own, clear, plain, graded, paper, picture },
  { label: 'Background', doc: 'What is seen where nothing stands.', word: 'background', initial: 'own' }
);

/** From -1 to 1; 0 changes nothing. */
const balance = (label: string, doc: string) => number({ label, doc, default: 0, min: -1, max: 1 });
/** From 0 to 1; 0 changes nothing. */
const amount = (label: string, doc: string) => number({ label, doc, default: 0, min: 0, max: 1 });

const TONE = object(
  {
    curve: choice(TONE_CHARACTERS, {
      label: 'Character',
      doc: 'The tone curve.',
      default: 'photographic'
    }),
    contrast: balance('Contrast', 'Slope of the curve about mid grey: 1 doubles it, -1 halves it.'),
    highlights: balance('Highlights', 'Bright places, by what is around them; 1 is two stops lighter.'),
    shadows: balance('Shadows', 'Dark places, by what is around them; 1 is two stops lighter.'),
    black: number({
      label: 'Black point',
      doc: 'What is shown black; a negative one lifts black.',
      default: 0,
      min: -20,
      max: 20,
      unit: 'L*'
    }),
    white: number({ label: 'White point', doc: 'What is shown white.', default: 100, min: 80, max: 110, unit: 'L*' })
  },
  { label: 'Tones', doc: 'Light and dark.' }
);

const COLOR = object(
  {
    saturation: balance('Saturation', 'All colours: -1 is grey, 1 twice as much.'),
    vibrance: balance('Vibrance', 'The same, and the more the less saturated a colour is.'),
    filter: nullable(colour('Colour filter', '#ffb46e')),
    filter_strength: number({
      label: 'Filter strength',
      doc: 'How dense the filter before the lens is; luminance stays.',
      default: 0.5,
      min: 0,
      max: 1
    }),
    bleach: amount('Bleach bypass', 'Silver that stays in the print: less colour, more contrast.')
  },
  { label: 'Colours', doc: 'Of the picture.' }
);

const LENS = object(
  {
    glow: number({
      label: 'Glow',
      doc: 'Share of the light that the lens scatters around bright places.',
      default: 0,
      min: 0,
      max: 0.5
    }),
    streaks: amount('Streaks', 'Rays of a stopped-down lens from what is much brighter than white.'),
    ghosts: amount('Lens ghosts', 'Mirror images of bright lights between the lenses.'),
    vignette_ev: number({
      label: 'Vignette',
      doc: 'How much darker the corners are, by the cos4 law.',
      default: 0,
      min: -3,
      max: 3,
      unit: 'EV'
    })
  },
  { label: 'Lens', doc: 'What a lens does to light.' }
);

const SURFACE = object(
  {
    sharpen: number({ label: 'Sharpen', doc: 'How much finest contrast grows.', default: 0, min: 0, max: 2 }),
    sharpen_px: number({
      label: 'Sharpening radius',
      doc: 'Of what is sharpened, in pixels of the film.',
      default: 1,
      min: 0.4,
      max: 6,
      unit: 'px'
    }),
    texture: choice(['none', 'film', 'paper'], {
      label: 'Texture',
      doc: 'Grain of film or of paper, added on purpose.',
      default: 'none'
    }),
    texture_amount: number({ label: 'Texture amount', doc: 'Its spread.', default: 2, min: 0, max: 10, unit: 'L*' })
  },
  { label: 'Surface', doc: 'Sharpness and texture.' }
);

const DIMMER = object(
  {
    group: text({
      label: 'Light',
      doc: 'Name of a light layer of the film.',
      default: '',
      minLength: 1,
      maxLength: 200,
      must: 'must be the name of a light layer'
    }),
    on: flag({ label: 'On', doc: 'Whether it is seen.', default: true }),
    dim_ev: number({ label: 'Level', doc: 'Against the render.', default: 0, min: -10, max: 6, unit: 'EV' }),
    warmth_mired: number({
      label: 'Warmth',
      doc: 'A filter before it; positive is warmer.',
      default: 0,
      min: MAX_COOL,
      max: MAX_WARM,
      unit: 'mired'
    })
  },
  { label: 'Dimmer', doc: 'A light layer of the film, dimmed after the render.' }
);

const MASK = object(
  {
    of: choice(['part', 'material'], { label: 'Of a', doc: 'Whose mask it is.', default: 'part' }),
    name: text({
      label: 'Name',
      doc: 'As the film has it.',
      default: '',
      minLength: 1,
      maxLength: 500,
      must: 'must be the name of a part or a material'
    }),
    exposure_ev: number({ label: 'Exposure', doc: 'Of what it covers.', default: 0, min: -5, max: 5, unit: 'EV' }),
    warmth_mired: number({
      label: 'Warmth',
      doc: 'A filter over it; positive is warmer.',
      default: 0,
      min: MAX_COOL,
      max: MAX_WARM,
      unit: 'mired'
    }),
    saturation: balance('Saturation', 'Of its colours: -1 is grey, 1 twice as much.')
  },
  { label: 'Mask', doc: 'A part or a material that is adjusted alone.' }
);

const TABLE = object(
  {
    file: text({
      label: 'Table',
      doc: 'A .cube file: a path for the command, in the application the hash of one that was brought in.',
      default: '',
      minLength: 1,
      maxLength: 500,
      must: 'must name a colour table'
    }),
    name: text({ label: 'Name', doc: 'Of the table.', default: '', maxLength: 120, must: 'must be a name' }),
    amount: number({ label: 'Table amount', doc: 'How much of it is seen.', default: 1, min: 0, max: 1 })
  },
  { label: 'Colour table', doc: 'Colours of another program, over all of the finish but its surface.' }
);

export const FINISH = object(
  {
    exposure_ev: number({
      label: 'Display exposure',
      doc: 'Shifts the display; the film stays.',
      default: 0,
      min: -10,
      max: 10,
      unit: 'EV'
    }),
    white: nullable(
      object(
        {
          kelvin: number({
            label: 'Colour temperature',
            doc: 'Of the light that is to look white.',
            default: 6500,
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
          })
        },
        { label: 'White balance', doc: 'The light that is to look white; null: D65, as rendered.', word: 'exposure' }
      )
    ),
    denoise: number({
      label: 'Denoising',
      doc: 'How much of the grain the denoiser takes, 0 to 1.',
      default: 0,
      min: 0,
      max: 1,
      word: 'quality'
    }),
    denoise_meanwhile: flag({
      label: 'Denoise while rendering',
      doc: 'Shows it denoised while it renders, each time that its samples have grown fourfold.',
      default: false,
      decides: 'neither',
      word: 'quality'
    }),
    lamps: list(DIMMER, {
      label: 'Dimmers',
      doc: 'Light layers that are not as rendered; films without layers are not changed.',
      maxItems: 16,
      what: 'light layers'
    }),
    masks: list(MASK, {
      label: 'Masks',
      doc: 'What is adjusted alone; films without masks are not changed.',
      maxItems: 16,
      what: 'masks'
    }),
    tone: TONE,
    color: COLOR,
    lens: LENS,
    surface: SURFACE,
    table: nullable(TABLE),
    background: BACKGROUND
  },
  { label: 'Finish', doc: 'What is done to the film for display.', decides: 'finish', word: 'finish' }
);
