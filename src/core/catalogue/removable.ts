/** What a user can rename and remove. */
export const REMOVABLE_KINDS = [
  'project',
  'picture',
  'proof',
  'viewpoint',
  'part',
  'captured',
  'photometric',
  'backdrop',
  'profile'
] as const;
export type RemovableKind = (typeof REMOVABLE_KINDS)[number];

/** For how long what was removed can be brought back. */
export const RESTORABLE_MS = 600_000;

export interface Removed {
  kind: RemovableKind;
  id: string;
  name: string;
  removed_at_ms: number;
}
