/** What a screen reader is told: of a render at its quarters and at its end, and of the brief when it has changed. */
import type { ProofDto } from '../../contracts/dto';
import type { SentencePart } from '../../core/brief/sentence';

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

/** The words of a sentence that another did not have. */
export function newWords(before: readonly SentencePart[], now: readonly SentencePart[]): string[] {
  const words = (parts: readonly SentencePart[]) => parts.flatMap((part) => ('word' in part ? [part.word] : []));
  const known = new Set(words(before));
  return words(now).filter((word) => !known.has(word));
}

/** `step`: one of the history, back (-1) or forward (1), that made the change. */
export function spokenChange(words: readonly string[], step: -1 | 1 | null, forecast: string | null): string {
  const done = step === null ? [] : [step < 0 ? 'Undone.' : 'Redone.'];
  const said = words.length > 0 ? [`The brief says: ${words.join(', ')}.`] : [];
  return [...done, ...said, ...(forecast === null ? [] : [`It would take about ${forecast}.`])].join(' ');
}
