/**
 * The state that the parts of the workspace share: the project as the server has it, and what the user has opened,
 * chosen and asked for. One store a page; it knows nothing of React, so its rules are tested alone.
 */
import { createContext, useContext } from 'react';
import { createStore, type StoreApi, useStore } from 'zustand';
import type {
  OpenPictureDto,
  PictureDto,
  PictureItemDto,
  ProofDto,
  WorkspaceChangesDto,
  WorkspaceDto
} from '../../contracts/dto';
import type { Removed } from '../../core/catalogue/removable';
import type { FreeViewpoint } from '../../core/camera/viewpoint';
import type { MaterialInHand } from './assigning';
import type { SheetUnit } from './panels/size-fields';
import type { Zoom } from './zoom';
import type { OpenPanel, Picking } from './view';

/** The frame and the viewpoint before the size changed its proportion. */
export interface FrameBefore {
  aspect: number;
  view: FreeViewpoint;
}

export interface WorkspaceState {
  /** With the picture in hand as `opened`. */
  workspace: WorkspaceDto;
  panel: OpenPanel;
  /** Id of the chosen proof; null shows the newest that has a picture. */
  proofId: string | null;
  showModel: boolean;
  beforeDenoising: boolean;
  zoom: Zoom;
  sheetUnit: SheetUnit;
  frameBefore: FrameBefore | null;
  message: string | null;
  /** What was removed last and can be brought back. */
  removed: Removed | null;
  /** EV100 of the preview on the stage. */
  previewEv: number | null;
  picking: Picking | null;
  /** Group of the lamp whose settings the panel shows. */
  lampInHand: string | null;
  /** Path of the part whose pose the panel shows; null when none is chosen. */
  partInHand: string | null;
  /** Whether that part alone is drawn on the stage. */
  partAlone: boolean;
  /** The material whose settings the panel shows; null when none is chosen. */
  materialInHand: MaterialInHand | null;
  /** Path of the part that it was pressed on; null when it was chosen by its name. */
  materialPart: string | null;
  /** What is shown beside the stage, by its key (beside.ts); null for nothing. */
  beside: string | null;
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
  | 'removed'
  | 'picking'
  | 'lampInHand'
  | 'partInHand'
  | 'partAlone'
  | 'gathering'
  | 'materialInHand'
  | 'materialPart'
  | 'beside'
>;

export interface WorkspaceActions {
  set(choice: Partial<Choice>): void;
  /** Takes the EV100 of the preview; always the same function, so an effect may depend on it. */
  readExposure(ev100: number | null): void;
  /** Opens a panel, or closes the open one when it is null. What the last panel asked of the stage ends with it. */
  openPanel(panel: OpenPanel): void;
  togglePanel(panel: OpenPanel): void;
  /** Takes a picture in hand, as the server has it. */
  openPicture(opened: OpenPictureDto): void;
  /** Shows a proof in place of the model. */
  chooseProof(id: string | null): void;
  /** False when they are of another picture in hand: they are then to be asked for again. */
  applyChanges(changes: WorkspaceChangesDto): boolean;
  replacePicture(picture: PictureDto): void;
  addProof(proof: ProofDto): void;
  addEarlierProofs(page: Pick<OpenPictureDto, 'proofs' | 'earlier'>): void;
  update(change: WorkspaceDto | ((workspace: WorkspaceDto) => WorkspaceDto)): void;
}

export type WorkspaceStore = StoreApi<WorkspaceState & WorkspaceActions>;

/** The later of two states of a picture: an answer can overtake an event. */
const newerOf = <P extends Pick<PictureDto, 'changes'>>(known: P, arrived: P | null): P =>
  arrived === null || known.changes > arrived.changes ? known : arrived;

const itemOf = (item: PictureItemDto, { name, lead, changes, brief }: PictureDto): PictureItemDto => ({
  ...item,
  name,
  lead,
  changes,
  size: brief.size
});

const withPicture = (workspace: WorkspaceDto, next: PictureDto): WorkspaceDto => {
  const { opened, pictures } = workspace;
  return {
    ...workspace,
    opened: opened.picture.id === next.id ? { ...opened, picture: newerOf(opened.picture, next) } : opened,
    pictures: pictures.map((p) => (p.id === next.id ? newerOf(p, itemOf(p, next)) : p))
  };
};

/** Proofs after what changed: those that are gone left out, new ones in their place by number. */
function withProofs(known: readonly ProofDto[], changed: readonly ProofDto[], removed: readonly string[]): ProofDto[] {
  const gone = new Set([...removed, ...changed.map((p) => p.id)]);
  return [...changed, ...known.filter((p) => !gone.has(p.id))].sort((a, b) => b.number - a.number);
}

/** The project after what changed on the server. Pictures that were changed here meanwhile keep their newer state. */
function withChanges(workspace: WorkspaceDto, changes: WorkspaceChangesDto): WorkspaceDto {
  const { stamp, machine, ahead, free_bytes, rendering } = changes;
  const { opened } = workspace;
  const arrived = new Map(changes.pictures.map((p) => [p.id, p]));
  const there = new Set(workspace.pictures.map((p) => p.id));
  const removed = new Set(changes.removedPictures);
  return {
    ...workspace,
    stamp,
    machine,
    ahead,
    free_bytes,
    rendering,
    opened: {
      ...opened,
      picture: newerOf(opened.picture, changes.picture),
      proofs: withProofs(opened.proofs, changes.proofs, changes.removed)
    },
    pictures: [
      ...workspace.pictures.filter((p) => !removed.has(p.id)).map((p) => newerOf(p, arrived.get(p.id) ?? null)),
      ...changes.pictures.filter((p) => !there.has(p.id))
    ].sort((a, b) => a.position - b.position)
  };
}

const ASKED_NOTHING = {
  picking: null,
  gathering: null,
  materialInHand: null,
  materialPart: null,
  frameBefore: null,
  partInHand: null,
  partAlone: false
} as const;

export function createWorkspaceStore(initial: WorkspaceDto): WorkspaceStore {
  return createStore<WorkspaceState & WorkspaceActions>((set, get) => ({
    workspace: initial,
    panel: null,
    proofId: null,
    beside: null,
    showModel: false,
    beforeDenoising: false,
    zoom: 'whole',
    sheetUnit: 'mm',
    message: null,
    removed: null,
    previewEv: null,
    lampInHand: null,
    ...ASKED_NOTHING,
    set: (choice) => set(choice),
    readExposure: (ev100) => set({ previewEv: ev100 }),
    // the finish is of a proof, which is seen
    openPanel: (panel) => set({ panel, ...ASKED_NOTHING, ...(panel === 'finish' ? { showModel: false } : {}) }),
    togglePanel: (panel) => get().openPanel(get().panel === panel ? null : panel),
    openPicture: (opened) =>
      set(({ workspace }) => ({
        workspace: { ...workspace, opened },
        proofId: null,
        showModel: false,
        ...ASKED_NOTHING
      })),
    chooseProof: (id) => set({ proofId: id, showModel: false }),
    applyChanges: (changes) => {
      const { workspace } = get();
      if (changes.opened !== workspace.opened.picture.id) return false;
      set({ workspace: withChanges(workspace, changes) });
      return true;
    },
    replacePicture: (picture) => set(({ workspace }) => ({ workspace: withPicture(workspace, picture) })),
    addProof: (proof) =>
      set(({ workspace }) => {
        const { opened } = workspace;
        if (proof.pictureId !== opened.picture.id || opened.proofs.some((p) => p.id === proof.id)) return {};
        return { workspace: { ...workspace, opened: { ...opened, proofs: withProofs(opened.proofs, [proof], []) } } };
      }),
    addEarlierProofs: ({ proofs, earlier }) =>
      set(({ workspace }) => {
        const { opened } = workspace;
        return {
          workspace: { ...workspace, opened: { ...opened, proofs: withProofs(opened.proofs, proofs, []), earlier } }
        };
      }),
    update: (change) =>
      set(({ workspace }) => ({ workspace: typeof change === 'function' ? change(workspace) : change }))
  }));
}

export const WorkspaceStoreContext = createContext<WorkspaceStore | null>(null);

/** What a part of the workspace takes from the store; it renders again when that changes. */
export function useWorkspaceStore<T>(take: (state: WorkspaceState & WorkspaceActions) => T): T {
  return useStore(useContext(WorkspaceStoreContext)!, take);
}
