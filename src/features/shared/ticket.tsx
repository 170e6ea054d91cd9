/** A proof's ticket: thumbnail, perforation, number, quality and clock; then what it cost, or how far it is. */
import type { ProofDto } from '../../contracts/dto';
import { grainText } from '../../core/brief/amounts';
import { duration } from '../../core/brief/sentence';
import { QUALITY_STEPS } from '../../core/catalogue/quality';
import { dayOrClock, when } from './when';

interface Props {
  proof: ProofDto;
  chosen: boolean;
  onChoose?: () => void;
  onStop?: () => void;
  onContinue?: () => void;
  onRemove?: () => void;
}

export const pictureOf = (proof: Pick<ProofDto, 'id' | 'picture_count'>, kind: 'screen' | 'small' | 'raw' = 'screen') =>
  `/api/proofs/${proof.id}/picture?n=${proof.picture_count}${kind === 'screen' ? '' : `&${kind}`}`;

const TICKET_COPY = {
  stop: 'Stop',
  continue: 'Continue',
  remove: 'Remove',
  unfinished: (samples: number) =>
    samples === 0 ? 'nothing rendered yet' : `unfinished, ${samples.toFixed(samples < 10 ? 1 : 0)} samples a pixel`
};

export function Ticket({ proof, chosen, onChoose, onStop, onContinue, onRemove }: Props) {
  const live = proof.state === 'running' || proof.state === 'waiting';
  const failed = proof.state === 'failed';
  const aspect = proof.width_px / proof.height_px;
  const [w, h] = aspect >= 72 / 56 ? [72, 72 / aspect] : [56 * aspect, 56];
  const percent = Math.floor(proof.share * 100);
  return (
    <li className={`tk${live ? ' live' : ''}${chosen ? ' cm' : ''}`} aria-current={chosen || undefined}>
      <div className="b">
        <button type="button" className="th" onClick={onChoose} aria-label={`Show proof ${proof.number}`}>
          {proof.picture_count > 0 ? (
            <img src={pictureOf(proof, 'small')} alt="" style={{ width: w, height: h }} />
          ) : (
            <span className="blank" style={{ width: w, height: h }} />
          )}
        </button>
        <div className="d">
          <span className="hd">
            <b className="no n">{proof.number}</b>
            <span className={`q${failed ? ' err' : ''}`}>
              {failed ? 'failed' : QUALITY_STEPS[proof.brief.quality.step].name}
            </span>
            <time className="n" title={when(proof.ended_at_ms ?? proof.created_at_ms)}>
              {live
                ? proof.state === 'running'
                  ? duration(proof.seconds)
                  : 'queued'
                : dayOrClock(proof.ended_at_ms ?? proof.created_at_ms)}
            </time>
          </span>
          {live ? (
            <>
              <span
                className="note n"
                title={`${proof.samples.toFixed(proof.samples < 10 ? 1 : 0)} samples per pixel so far`}
              >
                {proof.state === 'waiting'
                  ? 'next in the queue'
                  : proof.denoise_share !== null
                    ? `denoising, ${Math.floor(proof.denoise_share * 100)}\u00a0%`
                    : proof.stopping
                      ? 'stopping'
                      : `${percent}\u00a0%${proof.seconds_left === null ? '' : `, ${duration(proof.seconds_left)} left`}`}
              </span>
              <span className="acts">
                <button
                  type="button"
                  className="lk"
                  onClick={proof.state === 'running' ? onStop : (onRemove ?? onStop)}
                >
                  {proof.state === 'running' ? TICKET_COPY.stop : TICKET_COPY.remove}
                </button>
              </span>
            </>
          ) : failed || proof.state === 'kept' ? (
            <>
              {failed ? null : <span className="note n">{TICKET_COPY.unfinished(proof.samples)}</span>}
              <span className="acts">
                <button type="button" className="lk" onClick={onContinue}>
                  {TICKET_COPY.continue}
                </button>
                <button type="button" className="lk" onClick={onRemove}>
                  {TICKET_COPY.remove}
                </button>
              </span>
            </>
          ) : (
            <dl>
              <dt>grain</dt>
              <dd className="n" title={`Lightness noise in L*: ${grainNote(proof)}`}>
                {proof.grain === null ? 'not known' : grainText(proof.denoised_grain ?? proof.grain)}
              </dd>
              <dt>took</dt>
              <dd className="n">{duration(proof.seconds)}</dd>
              <dt>{proof.brief.patch ? 'patch' : 'size'}</dt>
              <dd className="n">
                {proof.width_px} × {proof.height_px}&nbsp;px
              </dd>
            </dl>
          )}
        </div>
      </div>
      {live ? (
        <span
          className="bar"
          role="progressbar"
          aria-valuenow={percent}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-label={`Proof ${proof.number}`}
        >
          <i style={{ width: `${percent}%` }} />
        </span>
      ) : null}
    </li>
  );
}

/** How the grain came about, and what the firefly limit cost. */
function grainNote(proof: ProofDto): string {
  const state =
    proof.denoise_share === 1
      ? `denoised${proof.denoise_note ? ` ${proof.denoise_note}` : ''}; ${proof.grain?.toFixed(1) ?? 'unknown'} before denoising`
      : (proof.denoise_note ?? 'not denoised');
  return proof.limited_share
    ? `${state}; the limit on bright paths took ${(100 * proof.limited_share).toFixed(1)} % of the scattered light`
    : state;
}
