/** What the workspace's parts share about what is seen. */
import type { RefObject } from 'react';
import type { PictureDto, ProofDto, WorkspaceDto } from '../../contracts/dto';
import { type Brief, canonicalJson, type Patch } from '../../core/brief/brief';
import type { PanelKey } from '../../core/brief/sentence';
import type { FreeViewpoint } from '../../core/camera/viewpoint';
import type { Vec3 } from '../../core/math/vec3';
import { aspectOf } from '../../core/output/fit-frame';
import { cameraView } from '../../core/recipe/viewpoint';
import { lampGroup, type LampPlace } from '../../core/scene/lamp-groups';
import type { Opening } from '../../core/scene/opening';
import type { ImportReport, LampGroupReport } from '../../formats/model/import-report';
import type { Cost } from '../../core/forecast/costs';
import type { Finishing } from './finish/use-finishing';
import type { ChangeBrief } from './use-brief';
import type { ForecastState } from './use-forecast';
import type { StageView } from './use-stage-view';

/** What the stage is asked for: a point of the model, by clicking and dragging. */
export interface Picking {
  /** Which question it is. */
  asks:
    | 'reflection'
    | 'focus'
    | 'cut'
    | 'white'
    | 'face'
    | 'lamp'
    | 'aim'
    | 'opening'
    | 'corner'
    | 'turn'
    | 'patch'
    | 'part'
    | 'material'
    | 'label'
    | 'place'
    | 'mask'
    | 'mask of a material';
  /** What to pick, for the stage to say. */
  says: string;
  onPick?: (point: Vec3, normal: Vec3, joins: boolean) => void;
  /** Asks how far a drag goes across the picture instead, in its widths. */
  onDrag?: (across: number, joins: boolean) => void;
  /** Asks for the opening that a pane fills instead. */
  onOpening?: (opening: Opening) => void;
  /** Asks for the part of the model that is pressed, by its path, instead. */
  onPart?: (path: string) => void;
  /** Asks for the material that is pressed, by its name in the file, and for the part that has it, instead. */
  onMaterial?: (material: string, part: string) => void;
  /** Asks for a place of the sheet, in shares of it, instead. */
  onPlace?: (u: number, v: number) => void;
  /** Asks for a rectangle instead, when it has been drawn. */
  onRect?: (rect: Patch) => void;
  /** Asks for a colour of the picture, as it is displayed, instead: sRGB, 0 to 1. */
  onColor?: (srgb: Vec3 | null) => void;
}

/** What is read off the model as it is drawn and posed on the stage. */
export interface DrawnModel {
  /** The material under a place of the picture, by its name in the file, and the part that has it. */
  pickMaterial(x: number, y: number): { material: string; part: string } | null;
  /** Height of the lowest point of a part, m. */
  lowestOf(path: string): number | null;
  /** Places on a part's upper faces, spread evenly; the same for the same seed. */
  placesOn(path: string, count: number, seed: number): Vec3[];
}

/** A lamp that is marked on the stage. */
export interface LampMark {
  name: string;
  at: Vec3;
  /** Where it shines to. */
  towards: Vec3 | null;
  chosen: boolean;
}

/** What every panel is given; each takes what it needs. What is chosen on the page alone, panels take from the store. */
export interface PanelContext {
  workspace: WorkspaceDto;
  picture: PictureDto;
  brief: Brief;
  /** The brief of the proof on the stage. */
  was: Brief | null;
  view: FreeViewpoint;
  /** EV100 of what is on the stage. */
  reading: number | null;
  /** What the stage is asked for now. */
  picking: Picking | null;
  onPicking: (picking: Picking | null) => void;
  onPicture: (picture: PictureDto) => void;
  onChange: ChangeBrief;
  onMessage: (text: string | null) => void;
  onWorkspace: (change: WorkspaceDto | ((workspace: WorkspaceDto) => WorkspaceDto)) => void;
  lamps: readonly LampGroup[];
  forecast: ForecastState;
  /** The proof on the stage; null when there is none. */
  shown: ProofDto | null;
  /** Proofs of the picture, newest first. */
  proofs: readonly ProofDto[];
  /** Grain before denoising after so many seconds, of the proof that renders now. */
  soFar: readonly (readonly [seconds: number, grain: number])[];
  /** Renders a patch as it is and once more with something less. */
  onTry: (cost: Cost) => void;
  /** What only the drawn model knows; null before it is there. */
  drawn: RefObject<DrawnModel | null>;
  /** The film of that proof, as it is finished now. */
  finishing: Finishing;
  stageView: StageView;
  onStageView: (part: Partial<StageView>) => void;
}

export type PanelName = PanelKey | 'model' | 'stage' | 'files' | 'keys';
export type OpenPanel = PanelName | null;

/** The viewpoint as numbers, with named cameras of the model looked up. */
export function freeView(brief: Brief, workspace: WorkspaceDto): FreeViewpoint {
  const view = brief.viewpoint;
  if (!('camera' in view)) return view;
  const camera =
    workspace.revision.report.cameras.find((c) => c.name === view.camera) ?? workspace.revision.report.cameras[0];
  if (!camera)
    return {
      position_m: [0, 1.6, 4],
      target_m: [0, 1, 0],
      up: [0, 1, 0],
      projection: 'perspective',
      upright: false,
      focal_length_mm: 35,
      sensor_height_mm: 24,
      f_number: null,
      focus_m: null,
      height_m: null
    };
  // a viewpoint that is changed is one's own and has no name any more
  return cameraView(camera, aspectOf(brief.size));
}

export interface LampGroup {
  group: string;
  kind: LampGroupReport['kind'] | 'added';
  count: number;
  /** Of the model's own, when they have one colour that is near white. */
  kelvin: number | null;
  /** Index of the brief's own lamp, when it is one. */
  added: number | null;
  /** All of it on hidden layers of the model. */
  hidden: boolean;
}

/** The groups of a picture's lamps: those of the model in the groups that the user gave them, then those that the brief adds. */
export function lampsOf(report: ImportReport, choice: Brief['lamps']): LampGroup[] {
  const groups = new Map<string, LampGroup>();
  const own = new Map(choice.regrouped.map((r) => [r.lamp.toLowerCase(), r.group]));
  const kelvins = new Map(report.lamps?.map((l) => [l.group, l.kelvin]));
  const put = (
    group: string,
    kind: LampGroup['kind'],
    kelvin: number | null,
    added: number | null = null,
    hidden = false
  ) => {
    const there = groups.get(group);
    if (there)
      groups.set(group, {
        ...there,
        kind: there.kind === kind ? kind : 'lamps',
        count: there.count + 1,
        hidden: there.hidden && hidden,
        kelvin: there.kelvin === kelvin ? kelvin : null
      });
    else groups.set(group, { group, kind, count: 1, kelvin, added, hidden });
  };
  for (const { name, kind, hidden } of placesOf(report))
    put(
      lampGroup(own.get(name.toLowerCase()) ?? name),
      kind,
      kelvins.get(lampGroup(name)) ?? null,
      null,
      hidden === true
    );
  for (const [i, lamp] of choice.added.entries()) put(lampGroup(lamp.name), 'added', lamp.kelvin, i);
  return [...groups.values()];
}

/** The model's lamps one by one; models brought in before they were looked for have names alone, at no place. */
export function placesOf({ lamps_there, lights, glowing }: ImportReport): LampPlace[] {
  if (lamps_there) return lamps_there;
  const named = (names: readonly string[], kind: LampPlace['kind']) =>
    names.map((name): LampPlace => ({ name, kind, at_m: [0, 0, 0], within: [] }));
  return [...named(lights, 'lamps'), ...named(glowing, 'glowing')];
}

/**
 * The proof that is seen where the one on the stage has no picture: the newest whole one for a patch, and for one that
 * renders or waits the newest that sees the same from the same place.
 */
export function proofUnder(shown: ProofDto, proofs: readonly ProofDto[]): ProofDto | null {
  const whole = proofs.filter((p) => p.id !== shown.id && p.picture_count > 0 && p.brief.patch === null);
  if (shown.brief.patch) return whole[0] ?? null;
  if (shown.state !== 'running' && shown.state !== 'waiting') return null;
  const frame = ({ brief, width_px, height_px }: ProofDto) =>
    canonicalJson([brief.viewpoint, (width_px / height_px).toFixed(2)]);
  return whole.find((p) => p.state !== 'running' && p.revision === shown.revision && frame(p) === frame(shown)) ?? null;
}
