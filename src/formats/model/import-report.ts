import type { FirstView } from '../../core/camera/first-view';
import type { Fineness, ReadAs } from '../../core/units/read-as';
import type { Site } from '../gltf/read-site';
import type { Finding } from '../../core/scene/health';
import type { WeightOfGroup } from '../../core/scene/set-aside';
import type { MaterialWeight } from '../../core/scene/weigh-materials';
import type { LampPlace } from '../../core/scene/lamp-groups';

export interface LampGroupReport {
  group: string;
  kind: 'lamps' | 'glowing';
  count: number;
  kelvin: number | null;
}

/** What is other than in the revision before, by the names of objects; of long lists the first ones. */
export interface ComparedReport {
  /** Number of that revision. */
  with: number;
  same: number;
  moved: NamesOf;
  changed: NamesOf;
  added: NamesOf;
  removed: NamesOf;
  renamed: NamesOf;
  /** Ids of the pictures in whose frame something of that lies. Revisions brought in earlier do not say. */
  pictures?: string[];
}
/** Between the two paths of a renamed object. */
export const RENAMED = ', now ';

interface NamesOf {
  count: number;
  names: string[];
}

/** What an import found and changed. Shown on the desk and in the workspace, stored with the revision. */
export interface ImportReport {
  source: string;
  format: string;
  /** Which unit and axis the file was read as. Models brought in earlier have none: metres with Y up. */
  read_as?: ReadAs;
  /** How finely its solids were meshed; not there where there are none. */
  fineness?: Fineness;
  /** Width (X), height (Y), depth (Z). */
  size_m: [number, number, number];
  min_m: [number, number, number];
  max_m: [number, number, number];
  triangles: number;
  vertices: number;
  /** Groups of objects that weigh most, as drawn. Models brought in earlier have none. */
  heaviest?: WeightOfGroup[];
  materials: string[];
  /** What each material weighs, the heaviest first. Models brought in earlier do not say. */
  material_weights?: MaterialWeight[];
  /** Materials that the file gives one side alone. Models brought in earlier do not say. */
  one_sided?: number;
  textures: number;
  /** Segments of curves; not there where there are none. */
  curves?: number;
  cameras: {
    name: string;
    position_m: [number, number, number];
    target_m: [number, number, number];
    up: [number, number, number];
    projection: 'perspective' | 'parallel';
    focal_length_mm: number;
    height_m: number | null;
    /** Width over height of its frame. Models brought in earlier do not say. */
    aspect?: number | null;
  }[];
  /** Lamps without a surface, by name. */
  lights: string[];
  /** Materials that glow. */
  glowing: string[];
  /**
   * Lamps by group: how many, or how many parts glow; kelvin when they have one colour that is near white. Models
   * brought in earlier have none.
   */
  lamps?: LampGroupReport[];
  /** Each lamp and glowing part where it is. Models brought in earlier have none. */
  lamps_there?: LampPlace[];
  /** Where it stands, when the file says so. */
  site?: Site;
  /** Where a model without cameras is best seen from at first; models brought in earlier do not say. */
  first_view?: FirstView;
  /** What is wrong with it, and what of that was put right. Models brought in earlier do not say. */
  health?: Finding[];
  /** Of a later revision that was brought in. */
  compared?: ComparedReport | undefined;
  /** Sentences: what the import made or changed. */
  changed: string[];
  /** Sentences: what the file has that could not be brought in. */
  missing: string[];
}
