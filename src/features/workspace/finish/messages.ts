/** What the page and its finish workers say to each other. */
import type { Finish } from '../../../core/brief/brief';
import type { DevelopedRows, StageLevel } from '../../../core/finishing/stage-developer';
import type { Proposal } from '../../../core/finishing/propose';
import type { SheetShare } from '../../../core/output/size';

export type FinishOrder =
  | { kind: 'open'; url: string; index: number; of: number }
  | { kind: 'develop'; id: number; finish: Finish; within: SheetShare; level: StageLevel }
  | { kind: 'propose'; id: number; finish: Finish };

export type FinishReport =
  | { kind: 'opened'; groups: string[]; luminanceRatio: number | null; denoised: boolean }
  | { kind: 'rows'; id: number; rows: DevelopedRows }
  | { kind: 'proposal'; id: number; proposal: Proposal | null }
  | { kind: 'fault'; message: string };
