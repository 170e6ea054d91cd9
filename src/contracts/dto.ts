/** What the server tells the screens. Times in ms, lengths in m, sizes in px or mm as named. */
import type { Brief } from '../core/brief/brief';
import type { FileKind } from '../core/catalogue/file-kinds';
import type { KeptKind, KeptPart } from '../core/brief/kept-part';
import type { Ahead } from '../core/forecast/ahead';
import type { Machine } from '../core/forecast/forecast';
import type { MeasuredLamp } from '../core/film/lamp-shares';
import type { PolarCurve } from '../core/lights/web/web';
import type { Removed } from '../core/catalogue/removable';
import type { ImportReport } from '../formats/model/import-report';

export type ProofStateDto = 'waiting' | 'running' | 'done' | 'kept' | 'failed';

export interface ProofDto {
  id: string;
  pictureId: string;
  number: number;
  state: ProofStateDto;
  brief: Brief;
  /** Whether a render of its brief would give the same film today: false for films of another renderer. */
  current: boolean;
  width_px: number;
  height_px: number;
  share: number;
  samples: number;
  grain: number | null;
  seconds: number;
  seconds_left: number | null;
  ev100: number | null;
  /** Grows with each picture written; 0 before the first. */
  picture_count: number;
  error: string | null;
  /** Of its denoising: 0 to 1 while it runs, 1 when it is denoised, null when it is not. */
  denoise_share: number | null;
  /** What grain it leaves, L*. */
  denoised_grain: number | null;
  /** Why there is none though it was wanted. */
  denoise_note: string | null;
  /** Share of the scattered light that the firefly limit took, in the run that came last. */
  limited_share: number | null;
  /** Of its picture as a file, bytes a pixel; null before it has ended. */
  file_bytes: Partial<Record<FileKind, number>> | null;
  revision: number;
  stopping: boolean;
  created_at_ms: number;
  ended_at_ms: number | null;
}

export interface PictureDto {
  id: string;
  name: string;
  brief: Brief;
  /** Newest proof with a picture. */
  /** `revision`: number of the revision that it is of. */
  lead: { proof: string; count: number; revision: number } | null;
  canUndo: boolean;
  canRedo: boolean;
  /**
   * Grows with every change of name or brief: of two states the greater is the newer, in whatever order they arrive.
   */
  changes: number;
}

/** A picture after a change of its brief. */
export interface ChangedPictureDto extends PictureDto {
  /** What another window had changed meanwhile and this change took back: labels of fields. */
  overridden: string[];
}

/** A picture in the list of a project's pictures. */
export interface PictureItemDto extends Pick<PictureDto, 'id' | 'name' | 'lead' | 'changes'> {
  /** In the order of the project's pictures. */
  position: number;
  size: Brief['size'];
  /** Its proofs that render or wait. */
  underWay: number;
}

/** The picture in hand with its newest proofs, newest first. */
export interface OpenPictureDto {
  /** Of the project when this was read. */
  stamp: number;
  picture: PictureDto;
  proofs: ProofDto[];
  /** How many older proofs there are. */
  earlier: number;
}

/** The sun that was found in a captured image. */
export interface CapturedSunDto {
  height_deg: number;
  /** On a plane that faces it, as the image's values have it. */
  lux: number;
  kelvin: number;
  /** Of the spot in the image. */
  radius_deg: number;
}

export interface CapturedDto {
  sha256: string;
  name: string;
  width_px: number;
  height_px: number;
  /** Null: none stands out, or it was brought in before one was looked for. */
  sun: CapturedSunDto | null;
}

/** A piece of a picture, pixel for pixel. */
export interface CropDto {
  /** A data URL. */
  png: string;
  /** Mean over its pixels. */
  samples: number;
  /** False when it was given less than it would have. */
  whole: boolean;
}

/** A town that a sky can be computed for. */
export interface TownDto {
  name: string;
  /** Which may be empty. */
  region: string;
  country: string;
  latitude_deg: number;
  longitude_deg: number;
}

/** A picture of one's own: to stand behind the model, to lie on surfaces, or both. */
export interface BackdropDto {
  sha256: string;
  name: string;
  width_px: number;
  height_px: number;
  purpose: 'behind' | 'surface' | 'both';
}

/** A part of a brief that was kept under a name. */
export interface KeptDto {
  id: string;
  kind: KeptKind;
  name: string;
  part: KeptPart;
}

/** What a group of lamps was measured to bring to a picture. */
export type MeasuredLampDto = MeasuredLamp;

/** The ICC profile of a press. */
export interface PressProfileDto {
  sha256: string;
  name: string;
}

/** A photometric file that can be attached to lamps. */
export interface PhotometricDto {
  sha256: string;
  name: string;
  /** All that its lamp gives off. */
  lumen: number;
  watts: number | null;
  curve: PolarCurve;
}

/** The files of the watched folder, and which of them a project follows. */
export interface WatchDto {
  files: string[];
  file: string | null;
  /** Why its last save was not brought in; null where it was. */
  note: string | null;
}

export interface WorkspaceDto {
  /** Grows with every change of the project. */
  stamp: number;
  project: { id: string; name: string; client: string; kind: string };
  revision: { id: string; number: number; glb_sha256: string; report: ImportReport };
  /** Revisions before it, the newest first. */
  earlier: { id: string; number: number; source: string; created_at_ms: number }[];
  pictures: PictureItemDto[];
  opened: OpenPictureDto;
  /** Models beside the project's own that can be placed. */
  further: { model: string; name: string; height_m: number }[];
  viewpoints: { id: string; name: string; viewpoint: Brief['viewpoint'] }[];
  captured: CapturedDto[];
  photometric: PhotometricDto[];
  press: PressProfileDto[];
  backdrops: BackdropDto[];
  kept: KeptDto[];
  /** What forecasts need of this machine and of the project's earlier proofs. */
  machine: Machine;
  /** What a new render waits for, of whatever project. */
  ahead: Ahead;
  /** Room on disk. */
  free_bytes: number;
  /** What renders on this machine now, of whatever project: "proof 3 of Reading room"; null when nothing does. */
  rendering: string | null;
}

/** What changed in a project after a change that a page has seen. */
export interface WorkspaceChangesDto
  extends Pick<WorkspaceDto, 'stamp' | 'pictures' | 'machine' | 'ahead' | 'free_bytes' | 'rendering'> {
  /** Content hash of the newest model: when it is another one, the page asks for all of the project. */
  model: string;
  /** Id of the picture in hand, of which more is told than of others. */
  opened: string;
  /** Null when it has not changed. */
  picture: PictureDto | null;
  /** Those of the picture in hand. */
  proofs: ProofDto[];
  /** Ids of its proofs that are gone. */
  removed: string[];
  /** Ids of pictures that are gone. */
  removedPictures: string[];
}

export interface DeskProjectDto {
  id: string;
  name: string;
  kind: string;
  pictures: number;
  revision: number;
  /** Of its first picture. */
  size: Brief['size'];
  first: Pick<PictureDto, 'id' | 'changes'>;
  lead: { proof: string; count: number; width_px: number; height_px: number } | null;
  last_proof: { quality: string; ended_at_ms: number } | null;
  running: { share: number; seconds_left: number | null } | null;
}

export interface DeskDto {
  /** What can be brought in: as a sentence's end, and the endings of main files. */
  formats: { text: string; extensions: string[] };
  /** Grows with every change that the desk shows. */
  stamp: number;
  client: string;
  /** The newest first, as many as were asked for. */
  projects: DeskProjectDto[];
  /** How many there are. */
  count: number;
  running: (ProofDto & { project: string; picture: string }) | null;
  /** What was removed and can be brought back, the last first. */
  removed: Removed[];
  waiting: number;
  storage: {
    films: number;
    films_bytes: number;
    models_bytes: number /** Of prepared scenes, which can be made again. */;
    packs_bytes: number;
    free_bytes: number;
  };
}
