/** What a press makes of colours, read by the browser; the last one is kept. */
import { type PressProof, pressProof, unpackPress } from '../../../core/finishing/press-proof';
import type { SeenPress } from './messages';

let kept: { profile: string; proof: PressProof } | null = null;

export async function pressSeen(press: SeenPress | null): Promise<{ proof: PressProof; marks: boolean } | null> {
  if (press === null) return null;
  const { profile, marks } = press;
  if (kept?.profile === profile) return { proof: kept.proof, marks };
  const response = await fetch(`/api/profiles/${profile}`);
  if (!response.ok) throw new Error('the profile of the press is not there any more; bring it in again');
  kept = { profile, proof: pressProof(unpackPress(await response.arrayBuffer())) };
  return { proof: kept.proof, marks };
}
