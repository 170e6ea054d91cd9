/**
 * The state that the parts of the workspace share: the project as the server has it, and what the user has opened,
 * chosen and asked for. One store a page; it knows nothing of React, so its rules are tested alone.
 */
import { createContext, useContext } from 'react';
import { createStore, type StoreApi, useStore } from 'zustand';
import type { PictureDto, ProofDto, WorkspaceChangesDto, WorkspaceDto } from '../../contracts/dto';
import type { FreeViewpoint } from '../../core/camera/viewpoint';
import type { SheetUnit } from './panels/size-fields';
import type { Zoom } from './stage';
import type { OpenPanel, Picking } from './view';

/** The frame and the viewpoint before the size changed its proportion. */
export interface FrameBefore {
  aspect: number;
  view: FreeViewpoint;
}

export interface WorkspaceState {
  workspace: WorkspaceDto;
  /** Id of the picture in hand. */
  pictureId: string;
  panel: OpenPanel;
  /** Id of the chosen proof; null shows the newest that has a picture. */
  proofId: string | null;
  showModel: boolean;
  beforeDenoising: boolean;
  zoom: Zoom;
  sheetUnit: SheetUnit;
  frameBefore: FrameBefore | null;
  message: string | null;
  /** EV100 of the preview on the stage. */
  previewEv: number | null;
  picking: Picking | null;
  /** Group of the lamp whose settings the panel shows. */
  lampInHand: string | null;
  /** Names of the lamps that are being put into one group; null when none are. */
  gathering: string[] | null;
}

type Choice = Pick<
  WorkspaceState,
  | 'showModel'
  | 'beforeDenoising'
  | 'zoom'
  | 'sheetUnit'
  | 'frameBefore'
  | 'message'
  | 'picking'
  | 'lampInHand'
  | 'gathering'
>;

export interface WorkspaceActions {
  set(choice: Partial<Choice>): void;
  /** Takes the EV100 of the preview; always the same function, so an effect may depend on it. */
  readExposure(ev100: number | null): void;
  /** Opens a panel, or closes the open one when it is null. What the last panel asked of the stage ends with it. */
  openPanel(panel: OpenPanel): void;
  togglePanel(panel: OpenPanel): void;
  choosePicture(id: string): void;
  /** Shows a proof in place of the model. */
  chooseProof(id: string | null): void;
  applyChanges(changes: WorkspaceChangesDto): void;
  replacePicture(picture: PictureDto): void;
  addPicture(picture: PictureDto): void;
  addProof(proof: ProofDto): void;
  update(change: WorkspaceDto | ((workspace: WorkspaceDto) => WorkspaceDto)): void;
}

export type WorkspaceStore = StoreApi<WorkspaceState & WorkspaceActions>;

/** The later of two states of a picture: an answer can overtake an event. */
const newerOf = (known: PictureDto | undefined, arrived: PictureDto) =>
  known && known.changes > arrived.changes ? known : arrived;

const withPicture = (workspace: WorkspaceDto, next: PictureDto): WorkspaceDto => ({
  ...workspace,
  pictures: workspace.pictures.map((p) => (p.id === next.id ? newerOf(p, next) : p))
});

/** The project after what changed on the server. Pictures that were changed here meanwhile keep their newer state. */
function withChanges(workspace: WorkspaceDto, changes: WorkspaceChangesDto): WorkspaceDto {
  const { stamp, machine, rendering } = changes;
  const changed = new Map(changes.proofs.map((proof) => [proof.id, proof]));
  const removed = new Set(changes.removed);
  const proofs = workspace.proofs.filter((p) => !removed.has(p.id)).map((p) => changed.get(p.id) ?? p);
  const known = new Set(proofs.map((p) => p.id));
  const there = new Set(workspace.pictures.map((p) => p.id));
  const { pictures } = changes.pictures.reduce(withPicture, workspace);
  return {
    ...workspace,
    stamp,
    machine,
    rendering,
    proofs: [...changes.proofs.filter((p) => !known.has(p.id)), ...proofs],
    pictures: [...pictures, ...changes.pictures.filter((p) => !there.has(p.id))]
  };
}

const ASKED_NOTHING = { picking: null, gathering: null, frameBefore: null } as const;

export function createWorkspaceStore(initial: WorkspaceDto, pictureId: string | null): WorkspaceStore {
  return createStore<WorkspaceState & WorkspaceActions>((set, get) => ({
    workspace: initial,
    pictureId: initial.pictures.find((p) => p.id === pictureId)?.id ?? initial.pictures[0]!.id,
    panel: null,
    proofId: null,
    showModel: false,
    beforeDenoising: false,
    zoom: 'whole',
    sheetUnit: 'mm',
    message: null,
    previewEv: null,
    lampInHand: null,
    ...ASKED_NOTHING,
    set: (choice) => set(choice),
    readExposure: (ev100) => set({ previewEv: ev100 }),
    openPanel: (panel) => set({ panel, ...ASKED_NOTHING }),
    togglePanel: (panel) => get().openPanel(get().panel === panel ? null : panel),
    choosePicture: (id) => set({ pictureId: id, proofId: null, showModel: false, ...ASKED_NOTHING }),
    chooseProof: (id) => set({ proofId: id, showModel: false }),
    applyChanges: (changes) => set(({ workspace }) => ({ workspace: withChanges(workspace, changes) })),
    replacePicture: (picture) => set(({ workspace }) => ({ workspace: withPicture(workspace, picture) })),
    addPicture: (picture) =>
      set(({ workspace }) => ({ workspace: { ...workspace, pictures: [...workspace.pictures, picture] } })),
    addProof: (proof) =>
      set(({ workspace }) =>
        workspace.proofs.some((p) => p.id === proof.id)
          ? {}
          : { workspace: { ...workspace, proofs: [proof, ...workspace.proofs] } }
      ),
    update: (change) =>
      set(({ workspace }) => ({ workspace: typeof change === 'function' ? change(workspace) : change }))
  }));
}

export const WorkspaceStoreContext = createContext<WorkspaceStore | null>(null);

/** What a part of the workspace takes from the store; it renders again when that changes. */
export function useWorkspaceStore<T>(take: (state: WorkspaceState & WorkspaceActions) => T): T {
  return useStore(useContext(WorkspaceStoreContext)!, take);
}
