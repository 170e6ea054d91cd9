/**
 * A studio round a product: lamps, an open ceiling, and paper as floor and backdrop. Sets are sized by the model; lamps
 * that a user has arranged keep their metres. +Y up; the floor lies at the model's foot; azimuth 0 is before the model.
 */
import { scale, type Vec3 } from '../../math/vec3';
import { bowl, type PaperSurface, sweep } from './backdrop';
import { lampRectangles, type Rectangle, type StudioLamp } from './lamp';
import { type Backdrop, lampsOfSet, STUDIO_SETS, type StudioSetKey } from './sets';

/** See StudioSurroundings of the brief. */
export interface StudioChoice {
  set: StudioSetKey;
  lamps: readonly StudioLamp[] | null;
  backdrop: Backdrop | null;
  paper: number | null;
  rotation_deg: number;
  brightness_ev: number;
}

interface Bounds {
  min: Vec3;
  max: Vec3;
}

export interface Studio {
  papers: PaperSurface[];
  /** Linear reflectance of the paper. */
  paper: Vec3;
  lights: Rectangle[];
  /** Radiance that comes through the open ceiling. */
  ceiling: Vec3;
}

// Unbleached paper is a little warm.
const PAPER_TINT: Vec3 = [1.015, 0.993, 0.964];
const CEILING_TINT: Vec3 = [0.999, 0.999, 1.03];

export const modelSize = ({ min, max }: Bounds): number =>
  Math.max(Math.hypot(max[0] - min[0], max[2] - min[2]), max[1] - min[1], 1e-3);
export const modelMiddle = ({ min, max }: Bounds): Vec3 => [
  (min[0] + max[0]) / 2,
  (min[1] + max[1]) / 2,
  (min[2] + max[2]) / 2
];

/** The lamps as they stand: arranged, or the set's for this model. */
export const lampsOf = (choice: Pick<StudioChoice, 'set' | 'lamps'>, bounds: Bounds): readonly StudioLamp[] =>
  choice.lamps ?? lampsOfSet(choice.set, modelSize(bounds));

/** `cameraDistance`: the farthest that the camera stands from the model's middle; paper reaches beyond it. */
export function buildStudio(choice: StudioChoice, bounds: Bounds, cameraDistance: number): Studio {
  const set = STUDIO_SETS[choice.set];
  const centre = modelMiddle(bounds);
  const foot: Vec3 = [centre[0], bounds.min[1], centre[2]];
  const size = modelSize(bounds);
  const brightness = 2 ** choice.brightness_ev;
  const paper = choice.paper ?? set.paper;
  const papers = {
    bowl: () => [bowl(foot, Math.max(3.8 * size, 1.4 * cameraDistance))],
    sweep: () => [
      sweep(
        foot,
        Math.max(6 * size, 1.6 * cameraDistance),
        2.2 * size,
        Math.max(4 * size, 1.4 * cameraDistance),
        5 * size,
        (choice.rotation_deg * Math.PI) / 180
      )
    ],
    none: () => []
  }[choice.backdrop ?? set.backdrop]();
  return {
    papers,
    paper: scale(PAPER_TINT, Math.min(paper, 0.95)),
    ceiling: scale(CEILING_TINT, set.ceiling * brightness),
    lights: lampsOf(choice, bounds).flatMap((lamp) =>
      lamp.on ? lampRectangles(lamp, centre, choice.rotation_deg, brightness) : []
    )
  };
}
