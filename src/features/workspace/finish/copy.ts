/** The sentences of the finish. */
import { evText, kelvinText, NBSP, percentOf } from '../../../core/brief/amounts';
import type { Proposal } from '../../../core/finishing/propose';
import { MAX_COOL, MAX_WARM } from '../../../core/color/kelvin';

const percent = (value: number) =>
  `${value > 0 ? '+' : value < 0 ? '−' : ''}${Math.round(Math.abs(value) * 100)}${NBSP}%`;

export const warmthText = (mired: number): string =>
  mired === 0 ? 'as it is' : `${Math.round(Math.abs(mired))} mired ${mired > 0 ? 'warmer' : 'cooler'}`;

export const FINISH_COPY = {
  title: 'Finish',
  open: 'Finish',
  none: 'The film of a finished proof is adjusted here, and nothing is rendered again. Render this picture first.',
  running: (proof: number) =>
    `Proof ${proof} is not complete yet. Its film can be finished when it has ended or is stopped.`,
  opening: 'Reading the film',
  fault: (why: string) => `The film cannot be shown here: ${why}.`,
  asRendered: 'As rendered',
  asRenderedHint: 'Takes all adjustments back, but for background and denoising',
  note: 'Shown from the film as you adjust it; nothing is rendered again.',
  compared: { before: 'Before', after: 'After', parted: 'Parted by a line' },
  beforeHint: 'As the proof was finished. Hold B for it',
  divider: 'Line between before and after',
  histogram: 'Lightness, now and before',
  cut: (white: string, black: string) => `${white}${NBSP}% white, ${black}${NBSP}% black`,
  cutHint: 'Of the pixels: with a channel at white, and black',
  meter: 'Propose',
  meterHint: 'Exposure, white balance and tones, metered on the film',
  meterNothing: 'There is nothing to be metered: the picture is black.',
  meterSays: ({ changes, light, rangeStops }: Proposal): string => {
    const white = light
      ? `The light looks like ${kelvinText(Math.round(light.kelvin / 50) * 50)}, half of which is balanced`
      : 'The light is near white';
    const tones =
      changes.tone.curve === 'gentle'
        ? 'so much that gentle tones hold it'
        : changes.tone.curve === 'crisp'
          ? 'so little that crisp tones suit it'
          : 'which photographic tones hold';
    return `${evText(changes.exposure_ev)}. ${white}. The picture spans ${rangeStops.toFixed(0)} stops, ${tones}.`;
  },
  take: 'Take it',
  leave: 'Leave it',
  exposure: 'Exposure',
  tones: 'Tones',
  character: 'Character',
  contrast: 'Contrast',
  highlights: 'Highlights',
  shadows: 'Shadows',
  black: 'Black point',
  white: 'White point',
  colours: 'Colours',
  saturation: 'Saturation',
  vibrance: 'Vibrance',
  filter: 'Colour filter',
  filterOn: 'Put a filter before the lens',
  strength: 'Strength',
  bleach: 'Bleach bypass',
  table: 'Colour table',
  tableAmount: 'Strength of the colour table',
  chooseTable: 'Choose a colour table',
  bringTable: 'Bring in a .cube',
  lens: 'Lens',
  glow: 'Glow',
  vignette: 'Vignette',
  streaks: 'Streaks',
  ghosts: 'Lens ghosts',
  masks: 'Masks',
  masksSay: 'Pick something in the picture to make it lighter, warmer or greyer than the rest.',
  noMasks: 'This film keeps no masks of its parts and materials.',
  keepMasks: 'Keep them from the next render on',
  masksKept: 'The next render keeps masks of its parts and materials.',
  pick: { part: 'Pick a part', material: 'a material' },
  done: 'Done',
  pickMask: {
    part: 'Press the part that is to be adjusted alone.',
    material: 'Press a material; all that has it is adjusted alone.'
  },
  nothingThere: 'there is no part at this place; press another one',
  removeMask: (name: string) => `Remove the mask of ${name}`,
  remove: 'Remove',
  warmthName: 'Warmth',
  surface: 'Surface',
  sharpen: 'Sharpen',
  radius: 'Radius',
  texture: 'Texture',
  textures: { none: 'none', film: 'film', paper: 'paper' },
  textureAmount: 'Amount',
  denoise: 'Denoise',
  denoiseNone: 'This film was not denoised. Denoising is switched on in the quality panel; the next render has it.',
  denoiseShift: (ratio: number) =>
    `Denoising makes the picture ${Math.abs((ratio - 1) * 100).toFixed(1)}${NBSP}% ${ratio > 1 ? 'lighter' : 'darker'} on the whole.`,
  press: 'Seen as printed',
  pressMarks: 'Mark colours that it cannot print',
  pressLost: (share: number) =>
    share < 0.0005
      ? 'This press holds the colours of the whole picture.'
      : `On ${share < 0.01 ? 'less than 1' : Math.round(100 * share)}${NBSP}% of the picture colours become duller than ` +
        'on a screen.',
  keep: 'Keep as a proof',
  keepSays: 'A new ticket with this finish, developed from the same film.',
  give: 'Give this finish to all pictures',
  giveSays: 'All other pictures of the project get these adjustments and dimmers, but keep their background.',
  gave: (pictures: number) =>
    pictures === 0
      ? 'All pictures have this finish already.'
      : pictures === 1
        ? 'One other picture has this finish now.'
        : `${pictures} other pictures have this finish now.`,
  files: 'Hand over',
  filesSays: 'Files of this film as it is finished now.',
  percent,
  dimmers: (count: number) =>
    count === 1 ? 'Dimmers: the one light of this film' : `Dimmers: the ${count} lights of this film, each alone`,
  noLayers: 'This film does not keep its lights apart, so none can be dimmed now.',
  keepLayers: 'Keep them apart from the next render on',
  layersKept: 'The next render keeps its lights apart, so that each can be dimmed afterwards.',
  settling: 'The grain of each light is being taken out; until then they show a little of it.',
  allAsRendered: 'All as rendered',
  back: 'Back to the proofs',
  level: 'level',
  warmth: 'warmth',
  levelText: percentOf,
  off: 'off',
  on: 'on',
  switch: (group: string) => `${group}, on or off`,
  alone: (group: string) => `${group} alone`
};

export const WARMTHS = [MAX_COOL, 0, 75, 150, MAX_WARM].map((value) => ({ value, strong: value === 0 }));
