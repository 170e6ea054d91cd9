/** What a screen reader is told of a render: at its quarters and at its end, and nothing in between. */
import type { ProofDto } from '../../contracts/dto';

type Spoken = Pick<ProofDto, 'number' | 'state' | 'share' | 'denoise_share' | 'error'>;

export function spokenProgress(proof: Spoken): string {
  const name = `Proof ${proof.number}`;
  switch (proof.state) {
    case 'waiting':
      return `${name} waits in the queue.`;
    case 'running':
      if (proof.denoise_share !== null) return `${name} is rendered and being denoised.`;
      return `${name}: ${Math.floor(proof.share * 4) * 25} %.`;
    case 'done':
      return `${name} is ready.`;
    case 'kept':
      return `${name} is stopped, unfinished.`;
    case 'failed':
      return `${name} failed. ${proof.error ?? ''}`.trim();
  }
}
