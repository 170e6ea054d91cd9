/** What the workspace's parts share about what is seen. */
import type { Dispatch, SetStateAction } from 'react';
import type { WorkspaceDto } from '../../contracts/dto';
import type { Brief } from '../../core/brief/brief';
import type { PanelKey } from '../../core/brief/sentence';
import type { FreeViewpoint } from '../../core/camera/viewpoint';
import type { Vec3 } from '../../core/math/vec3';
import { lampGroup } from '../../core/scene/lamp-groups';
import type { ImportReport, LampGroupReport } from '../../formats/import-report';
import type { ChangeBrief } from './use-brief';

/** What the stage is asked for: a point of the model, by pressing and dragging. */
export interface Picking {
  /** Which question it is. */
  asks: 'reflection' | 'focus' | 'white' | 'face';
  /** What to press, for the stage to say. */
  says: string;
  onPick?: (point: Vec3, normal: Vec3, joins: boolean) => void;
  /** Asks for a colour of the picture, as it is displayed, instead: sRGB, 0 to 1. */
  onColor?: (srgb: Vec3) => void;
}

/** What a panel is given that changes the brief and may add to the project. */
export interface ProjectPanelProps {
  workspace: WorkspaceDto;
  brief: Brief;
  /** The brief of the proof on the stage. */
  was: Brief | null;
  view: FreeViewpoint;
  onChange: ChangeBrief;
  onMessage: (text: string | null) => void;
  onWorkspace: Dispatch<SetStateAction<WorkspaceDto>>;
}

export type OpenPanel = PanelKey | 'model' | 'stage' | 'keys' | null;

/** The viewpoint as numbers, with named cameras of the model looked up. */
export function freeView(brief: Brief, workspace: WorkspaceDto): FreeViewpoint {
  const view = brief.viewpoint;
  if (!('camera' in view)) return view;
  const camera = workspace.revision.report.cameras.find((c) => c.name === view.camera) ?? workspace.revision.report.cameras[0];
  if (!camera) return { position_m: [0, 1.6, 4], target_m: [0, 1, 0], up: [0, 1, 0], projection: 'perspective', focal_length_mm: 35, sensor_height_mm: 24, f_number: null, focus_m: null, height_m: null };
  // a viewpoint that is changed is one's own and has no name any more
  const { name: _name, ...lens } = camera;
  return { ...lens, sensor_height_mm: 24, f_number: null, focus_m: null };
}

/** The groups of a model's lamps; models brought in before they were counted have names alone. */
export function lampsOfModel({ lamps, lights, glowing }: ImportReport): LampGroupReport[] {
  if (lamps) return lamps;
  const named = [...lights.map((name) => ({ name, kind: 'lamps' as const })), ...glowing.map((name) => ({ name, kind: 'glowing' as const }))];
  const groups = new Map<string, LampGroupReport>();
  for (const { name, kind } of named) {
    const group = lampGroup(name);
    groups.set(group, { group, kind, kelvin: null, count: (groups.get(group)?.count ?? 0) + 1 });
  }
  return [...groups.values()];
}
