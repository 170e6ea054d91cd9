/** The workspace's sentences. */
import { capital, inWords, NBSP } from '../../core/brief/amounts';
import { duration } from '../../core/brief/sentence';
import type { ProofDto } from '../../contracts/dto';
import type { FreeViewpoint } from '../../core/camera/viewpoint';
import { litShare, moonIlluminance } from '../../core/lights/moon/position';
import { compass } from '../../core/lights/sun/compass';
import { bearingOf } from '../../core/math/bearing';
import { subtract, type Vec3 } from '../../core/math/vec3';
import type { PreviewState } from './preview/use-preview';

interface StageSeen {
  proof: ProofDto | null;
  changes: number;
  /** Number of the proof that it stands in for, which has no picture yet. */
  until: number | null;
  /** What a patch was tried with, "with dark walnut plain". */
  tried: string | null;
  showModel: boolean;
  share: number | null;
  paper: boolean;
  preview: PreviewState;
  /** The model is drawn; without a graphics card it is not while the preview is on its way. */
  drawn: boolean;
}

export function stageNote(s: StageSeen): string {
  const size =
    s.share === null ? '' : ` ${Math.round(s.share * 100)}${NBSP}% of ${s.paper ? 'true size' : 'its pixels'}`;
  if (s.showModel || !s.proof) return `${previewNote(s.preview, s.drawn)}${s.preview.picture ? '' : size}`;
  if (s.until !== null) return `Proof ${s.proof.number}, until proof ${s.until} has its first tiles.`;
  const behind = s.tried
    ? `, ${s.tried}`
    : s.changes === 0
      ? ''
      : `, ${inWords(s.changes)} change${s.changes === 1 ? '' : 's'} behind`;
  return `Proof ${s.proof.number}${behind}.${size}`;
}

/** Which of the two views of the brief is seen, and how far the true one has come. */
function previewNote({ picture, fault, waitsFor }: PreviewState, drawn: boolean): string {
  const waits = waitsFor ? ` The preview waits for ${waitsFor}.` : '';
  if (!picture && !drawn) return 'The preview is on its way.';
  if (!picture) return fault ? `The model. No preview: ${fault}.` : `The model.${waits}`;
  if (picture.samples === 0) return `Preview, first look.${waits}`;
  const samples = picture.samples < 10 ? picture.samples.toFixed(1) : String(Math.round(picture.samples));
  const grain = picture.grain === null ? '' : `, grain before denoising ${picture.grain.toFixed(1)}`;
  return `Preview${picture.ended ? ' at its end' : ''}, ${samples} samples${grain}.${waits}`;
}

/** How far a direction lies to the right of where one looks, degrees, seen from above. */
export const rightOfView = (
  direction: Vec3,
  { position_m: eye, target_m: target }: Pick<FreeViewpoint, 'position_m' | 'target_m'>
): number => bearingOf(subtract(target, eye)) - bearingOf(direction);

/** On which side something stands that lies so far to the right. */
function side(rightDeg: number): string {
  const a = ((rightDeg % 360) + 360) % 360;
  return a < 22.5 || a > 337.5
    ? 'straight ahead'
    : a < 67.5
      ? 'ahead to the right'
      : a < 112.5
        ? 'on the right'
        : a < 157.5
          ? 'behind you to the right'
          : a < 202.5
            ? 'behind you'
            : a < 247.5
              ? 'behind you to the left'
              : a < 292.5
                ? 'on the left'
                : 'ahead to the left';
}

/** What the sun does for the picture, as a sentence. */
export function sunSentence(elevationDeg: number, azimuthDeg: number, rightDeg: number): string {
  if (elevationDeg < -18) return 'Night: the sun is far below the horizon.';
  if (elevationDeg < 0)
    return `Twilight: the sun stands ${Math.abs(elevationDeg).toFixed(0)}° below the horizon in the ${compass(azimuthDeg)}.`;
  const length = 1 / Math.tan((elevationDeg * Math.PI) / 180);
  const shadow = length > 20 ? 'shadows endlessly long' : `shadows ${length.toFixed(1)} times as long as tall`;
  return `Sun ${elevationDeg.toFixed(0)}° high in the ${compass(azimuthDeg)}, ${side(rightDeg)}; ${shadow}.`;
}

/** Where the moon stands and what it gives. */
export function moonSentence(moon: { elevation: number; azimuth: number; phase: number }, rightDeg: number): string {
  const high = (moon.elevation * 180) / Math.PI;
  if (high < 0) return 'The moon is below the horizon.';
  const lit = Math.round(100 * litShare(moon.phase));
  return (
    `Moon ${high.toFixed(0)}° high in the ${compass((moon.azimuth * 180) / Math.PI)}, ` +
    `${side(rightDeg)}, ${lit}${NBSP}% of it lit; a true one gives ` +
    `${moonIlluminance(moon.phase).toPrecision(1)}${NBSP}lx.`
  );
}

export const KEYS: readonly [string, string][] = [
  [
    '1 to 9, 0',
    'open the panels: viewpoint, lens, surroundings, lamps, look, exposure, background, size, quality, parts'
  ],
  ['Esc', 'end what is asked on the stage, or close the panel'],
  ['Ctrl Enter', 'render'],
  ['Ctrl .', 'stop and keep the picture so far'],
  ['< and >', 'previous and next picture'],
  [', and ;', 'previous and next proof'],
  ['w, t, x', 'whole sheet, true size, pixel for pixel'],
  ['m', 'the model, or the proof'],
  ['p', 'a patch: draw a rectangle to render alone'],
  ['f', 'the finish of the proof on the stage'],
  ['b', 'held in the finish: how the proof was before'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  ['arrows, + and −', 'turn, go nearer and farther, on the stage; with Shift: pan'],
  ['W, A, S, D', 'walk at the height of the eye, with the stage in focus; with Shift: faster'],
  ['Q and E, Page up and down', 'look round, rise and sink, with the stage in focus']
];

export const WORKSPACE_COPY = {
  title: (picture: string, project: string) => `${picture}, ${project}: Sphaera`,
  skip: 'Skip to the picture',
  heading: (picture: string, project: string) => `${picture}, a picture of ${project}`,
  notSaved: 'Not saved yet: the server does not answer. It is tried again until it does',
  overridden: (labels: string[]) =>
    `another window had just changed ${labels.join(', ').toLowerCase()}; your change replaced that, and Undo brings it back`,
  noSuchPicture: 'The picture of this address is no longer there. The first picture of the project is shown'
};

export const PICTURES_COPY = {
  keys: 'Keys',
  keysShown: 'press ?',
  rendering: 'rendering',
  up: 'Move up',
  down: 'down',
  move: (name: string, by: -1 | 1) => `Move ${name} ${by < 0 ? 'up' : 'down'}`,
  older: (revision: number) => `shows revision ${revision}`,
  queue: (underWay: number) => (underWay === 0 ? 'empty' : `${underWay} proof${underWay === 1 ? '' : 's'}`)
};

export const PLACE_COPY = {
  place: 'Place',
  search: 'search for a town',
  unknown: (text: string) => `No town is called “${text.trim()}”. Type its coordinates below.`,
  date: 'Date',
  hour: 'Local time',
  /** `differs`: the brief's clock is not the one that the place has then. */
  clock: (offset: string, zone: string | null, differs: boolean) =>
    `Local time is UTC${offset === 'Z' ? '+00:00' : offset}` +
    (zone === null ? '.' : ` (${zone.replaceAll('_', ' ')}).`) +
    (differs ? ' The place’s own clock differs on that day; set the time again to use it.' : '') +
    ' Towns: GeoNames, CC BY 4.0.'
};

export const KEYS_COPY = {
  appearance: 'Appearance',
  single: 'Keys of one letter, digit or sign',
  why: 'Turn them off when they are pressed by chance, or when you speak to your computer.'
};

export const MODEL_COPY = {
  size: 'Size and upright axis',
  correct: 'Correct the model',
  correcting: 'reading the model',
  fineness: 'Fineness of curved surfaces',
  finenesses: { coarse: 'coarse', medium: 'medium', fine: 'fine' },
  meshing: 'meshing the solids anew',
  glows: ', glows',
  weighs: (triangles: number | null, texture_mb: number) =>
    [triangles === null ? '' : `${triangles.toLocaleString('en')}`, texture_mb > 0 ? `${texture_mb}${NBSP}MB` : '']
      .filter(Boolean)
      .join(', '),
  materials: 'Materials: triangles, memory of their pictures',
  chords: {
    coarse: 'Chords stay within 1/400 of each body’s extent, facets within 30 degrees: for quick looks.',
    medium: 'Chords stay within 1/2,000 of each body’s extent, facets within 15 degrees.',
    fine: 'Chords stay within 1/10,000 of each body’s extent, facets within 6 degrees: for close views.'
  }
};

export const PANEL_COPY = {
  failed: 'This panel failed. The brief and the proofs are saved.',
  retry: 'Try again'
};

export const STRIP_COPY = {
  count: (n: number) => (n === 0 ? 'No proof of this picture yet' : `${n} proof${n === 1 ? '' : 's'}`),
  earlier: (n: number) => `${n} earlier`,
  remove: (number: number) => `Remove proof ${number}`,
  undo: 'Undo',
  redo: 'Redo',
  download: (number: number, beforeDenoising: boolean) =>
    `Download ${number}${beforeDenoising ? ' before denoising' : ''}:`,
  transparent: 'PNG, transparent',
  withoutPaper: 'Without the paper',
  withoutPaperHint: 'Takes the paper of the studio away and keeps the shadow; once rendered, PNG, transparent is here',
  none: (glance: string | null) =>
    `The stage shows the model. A Glance shows the light${glance ? ` in about ${glance}` : ''}.`,
  denoised: (whole: boolean, note: string) => `${whole ? 'Denoised ' : 'Not denoised: '}${note}.`
};

export const BRIEF_LINE_COPY = {
  shownBy: ({ number, state }: ProofDto) =>
    state === 'done'
      ? `. Proof ${number} already shows this; no new render needed.`
      : `. Proof ${number} is under way.`,
  fromFilm: (number: number) => `: made from proof ${number}, without a new render.`,
  readyIn: ': ready in about ',
  stubOf: ({ number, state }: ProofDto) => (state === 'done' ? `proof ${number}` : `${number} is rendering`),
  stubOfFilm: (number: number) => `of proof ${number}`,
  readyAt: (time: string, uncertain: boolean) => `ready ${time}${uncertain ? ' or later' : ''}`,
  after: (proofs: number) => `, after ${proofs === 1 ? 'the proof' : `${proofs} proofs`} before it`,
  long: (takes: string, ready: string) => `This render takes about ${takes}, until ${ready}.`,
  large: (needs: string, free: string) => `This render needs ${needs} of the ${free} that are free on the disk.`,
  renderAnyway: 'Render anyway',
  notNow: 'Not now',
  between: (low: string, high: string) => `Between ${low} and ${high}`,
  render: 'Render',
  finish: 'Finish',
  changed: (word: string) => `${word}, changed since the proof`,
  resting: 'Also:',
  dismiss: 'Dismiss'
};

export const SURROUNDINGS_COPY = {
  moreOfSky: 'Sun on a surface, strength of sun and sky, window openings'
};

export const PLAN_COPY = {
  north: 'North, counter-clockwise from the top of the plan',
  rotation: 'Rotation, counter-clockwise',
  dragNorth: 'Drag the ring until north is where your plan has it.',
  dragLight: 'Drag the ring to turn the light.'
};

export const FILES_COPY = {
  title: 'Hand over',
  more: 'More files',
  none: 'No proof of this picture is on the stage yet. Render one first.',
  say: (proof: number, width: number, height: number) => `Proof ${proof} as a file, ${width} × ${height}${NBSP}px.`,
  kind: 'Kind of file',
  about: {
    png: 'Without loss. For screens, layouts and what is transparent.',
    jpg: 'Small, for mail and the web. No transparency.',
    exr: 'Linear light as it was rendered, with all layers. For compositing.',
    tif: 'Without loss, also with 16 bits. For printers and retouching.',
    webp: 'Smaller than JPEG, also transparent. For the web.',
    avif: 'Smallest, also transparent. For the web; takes longest to write.',
    hdr: 'Linear light as it was rendered, without layers. As surroundings for other pictures.',
    pdf: 'A page of true size with trim and bleed. For printers.',
    ora: 'Layers for retouching: the picture, each light alone, and masks where the film keeps them.'
  },
  depth: 'Depth',
  bits: (n: number) => `${n}${NBSP}bits`,
  colours: 'Colours',
  coloursOf: { srgb: 'sRGB', p3: 'Display P3', press: 'inks (CMYK)' },
  coloursSay: {
    srgb: 'For every screen and most printers.',
    p3: 'For wide screens. Colours look the same; those that the finish makes very saturated go further.',
    press: 'Cyan, magenta, yellow and black for one press, by its profile.'
  },
  quality: 'Quality',
  long: 'Longest side',
  half: 'Half floats: half as large',
  pictureOnly: 'Without layers',
  clear: 'Transparent background',
  marks: 'Crop marks',
  raw: 'Before denoising',
  words: 'Title, author and date in the file',
  author: 'Author',
  brief: 'Also the brief',
  name: 'Name',
  nameSays: (words: string) => `Left empty, it is named as usual. Words in braces are filled in: ${words}.`,
  save: (kind: string) => `Save ${kind}`,
  asNow: 'As it is finished now',
  copy: 'Copy to the clipboard',
  copied: 'The picture is on the clipboard.',
  notCopied: 'This browser did not let the picture onto the clipboard. Save it as PNG instead.',
  print: 'Open the page to print',
  weighing: 'weighing it',
  written: 'How much of the file is written',
  left: (share: number, secondsLeft: number | null) =>
    `${Math.round(100 * share)}${NBSP}%${secondsLeft === null ? '' : `, ${duration(secondsLeft)} left`}`,
  stop: 'Stop',
  stopped: 'stopped; saving writes it',
  masks: 'Save its masks as a ZIP',
  masksSay: 'Flat colours of parts and of materials, and the coverage of each, with smooth edges',
  set: 'Save all pictures as a ZIP',
  setSays: 'The newest finished proof of each picture of this project, each as chosen here.',
  folder: 'Save all pictures into a folder',
  intoFolder: (done: number, of: number, name: string | null) => `${done} of ${of} saved${name ? `; ${name}` : ''}`,
  folderDone: (count: number, folder: string) =>
    `${count === 1 ? 'One file is' : `${count} files are`} in “${folder}”. Files that were there before are as they were.`,
  folderRefused: 'The browser did not let a file into the folder. Choose another folder, or save the ZIP.'
};

export const BESIDE_COPY = {
  title: 'Shown beside',
  none: 'nothing',
  proof: (number: number) => `Proof ${number}`,
  close: 'Take it away'
};

export const PRESS_COPY = {
  none: 'As a screen shows it',
  profiles: 'Profiles of presses',
  choose: 'Choose the ICC profile of a press',
  bring: 'Bring in an .icc',
  needed: 'Choose the profile of the press. Your printer gives it to you as a file.'
};

export const STAGE_COPY = {
  moving: 'Moving about',
  shadings: { shaded: 'Shaded', plain: 'Plain colours', clay: 'Clay', lines: 'Lines' },
  edges: 'Edges drawn',
  depth: 'Shadows and focus',
  depths: { machine: 'as the machine allows', on: 'drawn', off: 'left out' },
  depthSays: 'The sun’s shadow, darker corners and what the lens leaves unsharp.',
  guides: 'Guides over the picture',
  lines: { none: 'none', thirds: 'thirds', diagonals: 'diagonals', middle: 'middle' },
  horizon: 'Horizon',
  walking:
    'With the stage in focus, W, A, S and D walk at the height of the eye, Q and E look round, Page up and Page down ' +
    'rise and sink. Arrows turn about the model.'
};

export const LENS_COPY = {
  projections: { perspective: 'perspective', parallel: 'parallel', panorama: 'all around' },
  sees: (across: string, upright: string) => `Sees ${across} across and ${upright} upright; full-frame equivalent.`,
  upright: 'Straight verticals',
  uprightSays: (mm: string) => `The camera is level; its lens is shifted by ${mm}.`,
  tooSteep: 'It looks too steeply up or down for straight verticals.',
  roll: 'Roll',
  panoramaSays: (degrees: string) =>
    `Equirectangular: ${degrees} around. A sheet twice as wide as high shows all of it, as viewers of panoramas want it.`,
  sharp: (near: string, far: string) => `Sharp from ${near} to ${far}.`,
  endless: 'the horizon',
  zone: 'Show the sharp zone on the stage',
  zoneSays:
    'What is veiled is out of focus. The red line is where the lens is focused, the black ones where sharpness ends.'
};

export const VIEWPOINT_COPY = {
  drawn: 'As in drawings',
  drawnViews: {
    plan: 'Plan',
    front: 'Front',
    back: 'Back',
    left: 'Left',
    right: 'Right',
    isometric: 'Isometric'
  },
  section: 'Section',
  sections: { none: 'none', level: 'level', across: 'across', along: 'along' },
  cutAt: 'Cut at',
  cutAtFace: 'Cut at a face',
  cutSays: 'Press the face at which the model is to be cut open.',
  otherSide: 'Take away the other side',
  sectionSays: 'The camera looks through what is cut away. It still casts light and shadow.',
  openBacks: 'Look through backs',
  oneSided: (materials: number) =>
    `${materials === 1 ? 'One material has' : `${materials} materials have`} a front alone in the file. ` +
    'Their backs are shown too, unless the picture looks through them, as into a dolls’ house. Light never does.'
};

const objects = (n: number) => `${n.toLocaleString('en')} object${n === 1 ? '' : 's'}`;
export const REVISION_COPY = {
  title: 'Revisions',
  bring: 'Bring in a newer file',
  choose: 'Choose a newer file of this model',
  watch: 'Follow a file',
  watchNone: 'none',
  watching: (file: string) => `Each time ${file} is saved it comes in as the next revision.`,
  notBrought: (why: string) => `Its last save was not brought in: ${why}.`,
  sending: (share: number) => `${Math.floor(share * 100)}\u00a0% of the file is here`,
  reading: 'Reading the model and comparing it',
  restoring: 'Going back',
  same: 'this file holds the model that is here already; nothing was changed',
  revision: (number: number, source: string) => `Revision ${number}, ${source}`,
  goBack: 'Go back to it',
  goBackTo: (number: number) => `Go back to revision ${number}`,
  alike: (number: number) => `All objects are as in revision ${number}.`,
  compared: (number: number, same: number) => `Against revision ${number}: ${objects(same)} unchanged.`,
  seenIn: (names: readonly string[]) =>
    names.length === 0
      ? 'No picture’s view changed.'
      : `It changed what is in the frame of ${names.map((name) => `“${name}”`).join(', ')}.`,
  more: (n: number) => `and ${n.toLocaleString('en')} more`,
  kinds: {
    added: (n: number) => `${objects(n)} added`,
    removed: (n: number) => `${objects(n)} removed`,
    changed: (n: number) => `${objects(n)} with another shape or material`,
    moved: (n: number) => `${objects(n)} moved`,
    renamed: (n: number) => `${objects(n)} renamed`
  }
};

const triangles = (n: number) => `${n.toLocaleString('en')} triangle${n === 1 ? '' : 's'}`;
export const POSE_COPY = {
  title: 'Parts and pieces',
  say: 'Turn, move or leave out parts in this picture, and place pieces beside the model. Other pictures stay as they are.',
  search: 'Find a part',
  whole: 'The whole model',
  pick: 'Pick on the stage',
  pickSays: 'Press the part that you mean.',
  none: (text: string) => `No part is called “${text}”.`,
  failed: 'The parts could not be listed. Close this panel and open it again.',
  more: (n: number) => `and ${n.toLocaleString('en')} more; find them by name`,
  open: (name: string) => `Parts of ${name}`,
  weighs: (n: number, objectCount: number) => `${objectCount > 1 ? `${objects(objectCount)}, ` : ''}${triangles(n)}`,
  inPicture: 'In the picture',
  inPictureOf: (name: string) => `${name} in the picture`,
  axes: ['width', 'upright', 'depth'],
  seen: { whole: 'seen', indirect: 'shadow and reflection', shadow: 'shadow alone', out: 'left out' },
  turn: 'Turn',
  turns: ['About the width (X)', 'About the upright (Y)', 'About the depth (Z)'],
  move: 'Move',
  moves: ['Along the width (X)', 'Upwards (Y)', 'Along the depth (Z)'],
  ground: 'Put it on the ground',
  asItCame: 'As it came in',
  alone: 'Alone on the stage',
  posed: 'Posed in this picture',
  lost: 'Not in this revision of the model',
  forget: 'forget it',
  pointAt: 'show where it is',
  pointAtSays: (name: string) => `Press the part that is now what ${name} was.`,
  curves: 'Curves of the model',
  curvesThere: (segments: number) => `${segments.toLocaleString('en')} segments; drawn when a width is given.`,
  curvesWidth: 'Width of curves',
  noCurves: 'not shown',
  pieces: 'Pieces',
  place: 'Place a piece',
  further: 'Models of your own',
  bringFurther: 'Bring in a model to place',
  chooseFurther: 'Choose a model file to place',
  sending: (share: number) => `${Math.floor(share * 100)}${NBSP}% of the file is here`,
  reading: 'Reading the model',
  placeSays: (name: string) => `Press where the ${name.toLowerCase()} stands; each press places one more. Escape ends.`,
  placing: 'Done',
  moveSays: (name: string) => `Press where ${name} stands.`,
  moveOnStage: 'Place it on the stage',
  scatter: (name: string, part: string) => `Scatter over ${part}: ${name.toLowerCase()}`,
  scatterCount: 'How many',
  scatterHere: 'Scatter',
  scatterNowhere: 'this part has no face that looks upwards; choose another part to scatter over',
  scatterFirst: 'Choose a part above to scatter pieces over it.',
  another: 'Another of it',
  takeOut: 'Take it out',
  takeAllOut: (n: number) => `Take all ${n.toLocaleString('en')} out`,
  scale: 'Scale',
  position: 'Position',
  ofHeight: (metres: number) => (metres < 1 ? `${Math.round(metres * 100)}${NBSP}cm` : `${metres.toFixed(1)}${NBSP}m`)
};

export const HEALTH_COPY = {
  title: 'Health',
  sound: 'Nothing is wrong with this model.',
  repairs: {
    flat: 'Take them out',
    doubled: 'Take the lower out',
    inside_out: 'Turn them round',
    normals: 'Shade anew',
    open_glass: 'Close them',
    materials: 'Join them',
    textures: 'Make them smaller'
  },
  undo: (repair: string) => `Undo: ${repair}`,
  repairAll: (n: number) => `Repair all ${inWords(n)}`,
  repairing: 'repairing the model',
  reading: 'reading the model',
  addFiles: 'Add the files',
  chooseFiles: 'Choose the files that are missing',
  sending: (share: number) => `${Math.floor(share * 100)}${NBSP}% of the files is here`,
  andMore: (n: number) => ` and ${n} more`
};

export const MATERIALS_COPY = {
  title: 'Materials of the file',
  asInFile: 'as in the file',
  fileChanged: 'of the file, changed',
  changed: (name: string) => `${name}, changed`,
  ofParts: (n: number) => `; ${n === 1 ? 'one part' : `${inWords(n)} parts`} other`,
  back: 'As in the file',
  pick: 'Press it on the stage',
  pickSays: 'Press the part whose material you want to see to.',
  scope: 'Where',
  allLikeThis: 'All like this',
  onlyPart: (name: string) => `Only ${name}`,
  sides: { library: 'Library', change: 'Change', pictures: 'Pictures on it' },
  sidesOf: (name: string) => `What is done to ${name}`,
  search: 'Find a material',
  families: 'Kinds of material',
  used: 'Used last',
  own: 'My own',
  library: 'Materials of the library',
  dragSays: 'Press one to take it, or drag it onto a part on the stage.',
  dropped: (name: string, part: string) => `${name} on ${part}`,
  keep: 'Save this material as',
  none: (text: string) => `No material of the library is called “${text}”.`,
  takeAll: (n: number) => (n === 1 ? 'Take the suggestion' : `Take ${inWords(n)} suggestions`),
  suggests: (material: string, name: string) => `${material}: ${name}`,
  changes: {
    color: 'Colour',
    shine: 'Shine',
    metal: 'Metal',
    clear: 'Clearness',
    tint: 'Tint',
    tint_cm: 'Thickness that has the tint',
    relief: 'Relief',
    brushed: 'Brushing',
    brushed_deg: 'Brushed along',
    glow_nits: 'Light output',
    pattern_cm: 'Size of the pattern',
    pattern_along: 'Pattern along',
    variation: 'Variation'
  },
  axes: { x: 'x', y: 'y, upright', z: 'z' },
  unchanged: 'as it is',
  noGlow: 'none',
  undoChanges: 'Undo all changes',
  swatch: 'The material on its small object',
  textures: {
    color: 'Colour',
    roughness: 'Roughness',
    normal: 'Normals',
    height: 'Height',
    opacity: 'Opacity'
  },
  noPicture: 'none',
  choosePicture: (use: string) => `Picture for ${use.toLowerCase()}`,
  bringPicture: 'Bring in a picture',
  bringPictureLabel: 'Choose a picture to lie on surfaces',
  noPictures: 'No picture yet. Bring in PNG, JPEG, WebP, TIFF or AVIF; clear parts stay clear.',
  projection: 'Laid on',
  projections: { box: 'from six sides', planar: 'from one side', cylinder: 'around', file: 'as in the file' },
  axis: 'Axis',
  width: 'Width',
  repeats: 'Repeats',
  height_mm: 'Black to white',
  turn: 'Turn',
  across: 'Across',
  up: 'Up',
  clearPictures: 'Take the pictures off',
  notSquare: (width: number, height: number) =>
    `${width} × ${height} px: its height on the surface follows from its width.`,
  tooCoarse: (ppcm: string) => `${ppcm} px to the centimetre: from near, its pixels will be seen.`,
  varied: 'Break up its repeats',
  variedSays:
    'Each patch is taken from another place of the pictures. For stone, earth or cloth; not for tiles or boards.',
  rules: 'Rules of this picture',
  rulesCount: (n: number) => (n === 1 ? 'One rule' : `${capital(inWords(n))} rules`),
  toAll: 'Use in all pictures',
  toAllDone: (n: number) =>
    n === 0
      ? 'All pictures have these rules.'
      : `${capital(inWords(n))} more ${n === 1 ? 'picture has' : 'pictures have'} these rules.`,
  saveRules: 'Save the rules',
  readRules: 'Read rules',
  readRulesLabel: 'Choose a file of rules',
  notRules: (name: string) => `“${name}” is no file of rules. Choose one that was saved here.`,
  lost: 'Rules without a material or part in this revision',
  onPart: (material: string, part: string) => `${material}, on ${part}`,
  forget: 'Forget',
  pattern: 'By name pattern',
  patternLabel: 'Names of materials, with * for any letters',
  patternAdd: 'Choose its material'
};

export const LABELS_COPY = {
  title: 'Labels',
  say: 'A picture on a face, as printed or stuck on.',
  put: 'Put on a face',
  putSays: 'Press the face where the label is to lie.',
  picture: 'Picture',
  move: 'Move',
  moveSays: 'Press where its middle is to lie.',
  width: 'Width',
  turn: 'Turn',
  shine: 'Shine',
  shown: 'Shown',
  remove: 'Remove',
  name: 'Name',
  newName: (n: number) => `Label ${n}`
};
