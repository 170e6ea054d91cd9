/** What the page and its finish workers say to each other. */
import type { Finish } from '../../../core/brief/brief';
import type { DevelopedRows, StageLevel } from '../../../core/finishing/stage-developer';
import type { Proposal } from '../../../core/finishing/propose';
import type { SheetShare } from '../../../core/output/size';

/** The press that a picture is shown for, by the hash of its profile. */
export interface SeenPress {
  profile: string;
  /** Whether what it cannot hold is marked. */
  marks: boolean;
}

export type FinishOrder =
  | { kind: 'open'; id: number; url: string; index: number; of: number }
  | { kind: 'develop'; id: number; finish: Finish; within: SheetShare; level: StageLevel; press: SeenPress | null }
  | { kind: 'propose'; id: number; finish: Finish }
  /** What is foremost at a place of the picture, in shares of its sides. */
  | { kind: 'pick'; id: number; u: number; v: number };

export type FinishReport =
  | {
      kind: 'opened';
      id: number;
      groups: string[];
      luminanceRatio: number | null;
      denoised: boolean;
      hasMasks: boolean;
    }
  | { kind: 'rows'; id: number; rows: DevelopedRows }
  | { kind: 'proposal'; id: number; proposal: Proposal | null }
  | { kind: 'picked'; id: number; part: string | null; material: string | null }
  /** Why an order could not be followed. */
  | { kind: 'fault'; id: number; message: string };
