/**
 * The tasks that run in processes of their own, with what goes in, what is told on the way and what comes out. What
 * takes seconds, much memory or reads files from outside runs there, so that the web server stays quick and a file that
 * breaks a reader breaks nothing else. Each is src/server/tasks/NAME.ts, built to build/task-NAME.mjs.
 */
import type { Brief, Finish, Surroundings, Swatch } from '../../core/brief/brief';
import type { FileOptions } from '../../core/catalogue/file-kinds';
import type { PieceKey } from '../../core/catalogue/pieces';
import type { MaskName } from '../../core/film/masks';
import type { MeasuredLamp } from '../../core/film/lamp-shares';
import type { DenoiseResult } from '../../core/finishing/denoise/denoise-film';
import type { Cost, CostsSoFar, Saving } from '../../core/forecast/costs';
import type { Probe } from '../../core/forecast/forecast';
import type { SheetShare } from '../../core/output/size';
import type { PolarCurve } from '../../core/lights/web/web';
import type { Repair } from '../../core/scene/health';
import type { Matched } from '../../core/scene/match-objects';
import type { WeightOfGroup } from '../../core/scene/set-aside';
import type { Fineness, ReadAs } from '../../core/units/read-as';
import type { LengthUnit } from '../../core/units/units';
import type { Lease } from '../store/lease';

/** The sun that was found in a captured image. */
export interface CapturedSun {
  height_deg: number;
  /** On a plane that faces it, as the image's values have it. */
  lux: number;
  kelvin: number;
  /** Radius of the spot in the image. */
  radius_deg: number;
}

/** A model's content hash and a brief of it. */
interface OfModel {
  model: string;
  brief: Brief;
}

/** Where the model before its repairs is written, beside the one after them. */
export const unrepairedBeside = (out: string): string => `${out}.unrepaired`;

/** A material of a model of the content store, by its name there. */
export interface MaterialOfModel {
  model: string;
  name: string;
}

export interface Tasks {
  /** Renders a proof. */
  render: { input: { lease: Lease; proof: string }; progress: RenderNews; result: RenderOutcome };
  /** Develops a proof whose film is there. */
  finish: { input: { lease: Lease; proof: string }; progress: RenderNews; result: RenderOutcome };
  /** Denoises a film on disk. `quick` and `learned`: by which filter. */
  denoise: {
    input: {
      proof: string;
      /** Of the lease that it works under; its file bears it. */
      fence: number;
      layers: number;
      width: number;
      height: number;
      /** Luminance of displayed white, cd/m2. */
      white: number;
      /** A look while it is rendered, which the render waits for. */
      look: boolean;
    };
    progress: number;
    result: DenoiseResult & { learned: boolean; quick: boolean };
  };
  /** Denoises the light layers of a film on disk. */
  layers: {
    input: { proof: string; width: number; height: number; white: number };
    progress: number;
    result: null;
  };
  /** Writes what a screen shows of a film, for its finish to be adjusted. */
  stage: {
    input: {
      proof: string;
      /** Hash of its film; null while it is rendered. */
      film: string | null;
      width: number;
      height: number;
      ev100: number;
      /** How much of the filter its layers show, 0 to 1. */
      denoise: number;
      /** Whose coverage it has. */
      masks: readonly MaskName[];
      /** Whether its denoised film is there. */
      denoised: boolean;
      out: string;
    };
    progress: never;
    result: null;
  };
  /** Writes the masks of a film as files named delivery-0, delivery-1 ... into a folder; gives their names to hand over. */
  masks: {
    input: { proof: string; film: string | null; width: number; height: number; out: string };
    progress: never;
    result: string[];
  };
  /** Writes a file of a proof to hand over. */
  deliver: {
    input: {
      proof: string;
      /** Hash of its film; null while it is rendered. */
      film: string | null;
      file: FileOptions;
      finish: Finish;
      within: SheetShare;
      width: number;
      height: number;
      ev100: number;
      ppi: number | null;
      /** Pixels that reach beyond the trim. */
      bleedPx: number;
      marks: boolean;
      out: string;
    };
    /** Share that is done, 0 to 1. */
    progress: number;
    result: null;
  };
  /**
   * Reads model files. With `as` to a normalised GLB, written at `out`, and an ImportReport; a unit or axis that is not
   * given is what the format states. Without it only tells what the file is, as a Recognition.
   */
  import: {
    input: {
      files: { name: string; path: string }[];
      maxBytes: number;
      as: {
        unit: LengthUnit | null;
        up: 'y' | 'z' | null;
        /** What a model that was normalised had been read as; null for a file. */
        from: ReadAs | null;
        /** Of solids. */
        fineness: Fineness;
        repairs: readonly Repair[];
        /** The model before its repairs is written beside it, where something can be repaired. */
        out: string;
      } | null;
    };
    progress: never;
    result: { report?: unknown; unrepaired?: boolean; recognition?: unknown };
  };
  /** Compares the objects of two models by their content hashes. */
  compare: { input: { before: string; after: string }; progress: never; result: Matched };
  /** Reads a captured image. Beside `out` it writes the strip (.png) and, when it was reduced, the image (.exr). */
  captured: {
    input: { path: string; name: string; reduce: boolean; out: string };
    progress: never;
    result: { width: number; height: number; reduced: boolean; sun: CapturedSun | null };
  };
  /** Reads a photometric file. `name`: the one that it states, which may be empty. */
  photometric: {
    input: { path: string };
    progress: never;
    result: { name: string; watts: number | null; lumen: number; curve: PolarCurve };
  };
  /** Reads the ICC profile of a press, and writes what it makes of colours at `out`. `name` may be empty. */
  press: { input: { path: string; out: string }; progress: never; result: { name: string } };
  /** Reads a picture to stand behind models, and writes it as PNG at `out`. */
  backdrop: {
    input: { path: string; out: string; purpose: 'behind' | 'surface' };
    progress: never;
    result: { width: number; height: number };
  };
  /** Renders patches at two sizes, for the forecast. */
  probe: { input: OfModel; progress: never; result: Probe };
  /** Measures what costs time. `known` was measured before; `size` is the whole picture's. */
  costs: {
    input: OfModel & { savings: Saving[]; known: Cost[]; materials: number; size: Brief['size'] };
    progress: CostsSoFar;
    result: Cost[];
  };
  /** Renders a detail of a picture. `whole`: false when its time was over before its samples. */
  crop: { input: OfModel; progress: never; result: { png: Uint8Array; samples: number; whole: boolean } };
  /** Measures what each group of lamps contributes. */
  lamps: { input: OfModel; progress: never; result: MeasuredLamp[] };
  /** Finds the heaviest objects of a model. */
  weigh: { input: { model: string }; progress: never; result: WeightOfGroup[] };
  /** Draws a piece of the library, so that its file is there. */
  piece: { input: { key: PieceKey }; progress: never; result: null };
  /** Renders a material on the small object that all are shown on. */
  swatch: { input: Swatch & { of: MaterialOfModel | null }; progress: never; result: Uint8Array };
  /** Renders the small scene under saved surroundings. */
  surroundings: { input: { surroundings: Surroundings }; progress: never; result: Uint8Array };
  /** Prepares renders for browsers; a process that stays. */
  setup: {
    input: OfModel & {
      width: number;
      height: number;
      /** Keys of what the asker has. */
      pack: string | null;
      rig: string | null;
      light: string | null;
      /**
       * Waits for the very pack and light of this brief; else a pack with another origin serves, when the asker has it,
       * and coarse clouds.
       */
      exact: boolean;
    };
    progress: never;
    result: Uint8Array;
  };
}

export type TaskName = keyof Tasks;
export type TaskInput<N extends TaskName> = Tasks[N]['input'];
export type TaskProgress<N extends TaskName> = Tasks[N]['progress'];
export type TaskResult<N extends TaskName> = Tasks[N]['result'];

/** How a proof's task ended. `released`: it was asked to end early, and the rest is done later. */
export type RenderOutcome = 'done' | 'kept' | 'dropped' | 'released';

/** Told by a proof's task, which a service passes on to the queue. */
export interface RenderNews {
  phase: 'setup' | 'render' | 'denoise' | 'write';
  share: number;
  secondsLeft: number | null;
}

interface TaskLimits {
  /** For sentences: "the measurement took too long". */
  what: string;
  /** null: it runs as long as it takes; who started it may stop it. */
  maxSeconds: number | null;
  /** Resident memory; null for none. */
  maxMemoryMb: number | null;
}

const SMALL_MB = 4096;

export const TASK_LIMITS: Record<TaskName, TaskLimits> = {
  render: { what: 'the render', maxSeconds: null, maxMemoryMb: null },
  finish: { what: 'the finish', maxSeconds: null, maxMemoryMb: null },
  denoise: { what: 'the denoising', maxSeconds: null, maxMemoryMb: null },
  layers: { what: 'denoising the light layers', maxSeconds: 3600, maxMemoryMb: null },
  stage: { what: 'reading the film', maxSeconds: 600, maxMemoryMb: null },
  masks: { what: 'writing the masks', maxSeconds: 3600, maxMemoryMb: null },
  deliver: { what: 'writing the file', maxSeconds: 3600, maxMemoryMb: null },
  // config.importTimeoutMs and config.importMemoryMb take their place
  import: { what: 'reading the model', maxSeconds: 180, maxMemoryMb: 6144 },
  compare: { what: 'comparing the revisions', maxSeconds: 180, maxMemoryMb: 6144 },
  captured: { what: 'reading the image', maxSeconds: 120, maxMemoryMb: 6144 },
  photometric: { what: 'reading the photometric file', maxSeconds: 30, maxMemoryMb: 1024 },
  press: { what: 'reading the profile', maxSeconds: 60, maxMemoryMb: SMALL_MB },
  backdrop: { what: 'reading the picture', maxSeconds: 60, maxMemoryMb: SMALL_MB },
  probe: { what: 'the forecast’s measurement', maxSeconds: 180, maxMemoryMb: null },
  costs: { what: 'the measurement', maxSeconds: 900, maxMemoryMb: null },
  crop: { what: 'the detail', maxSeconds: 180, maxMemoryMb: null },
  lamps: { what: 'the measurement', maxSeconds: 300, maxMemoryMb: null },
  weigh: { what: 'weighing the model', maxSeconds: 60, maxMemoryMb: SMALL_MB },
  piece: { what: 'drawing the piece', maxSeconds: 120, maxMemoryMb: SMALL_MB },
  swatch: { what: 'the swatch', maxSeconds: 120, maxMemoryMb: SMALL_MB },
  surroundings: { what: 'the preview', maxSeconds: 120, maxMemoryMb: SMALL_MB },
  setup: { what: 'the preparation', maxSeconds: null, maxMemoryMb: null }
};
