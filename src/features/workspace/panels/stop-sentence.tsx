/** When a render stops, as one sentence; what will end it, or has, is marked. */
import type { ProofDto } from '../../../contracts/dto';
import type { Brief } from '../../../core/brief/brief';
import { duration } from '../../../core/brief/sentence';
import type { Forecast } from '../../../core/forecast/forecast';
import { grainAfter, stopClauses } from '../../../core/forecast/stops';

interface Props {
  brief: Brief;
  forecast: Forecast | null;
  /** That renders now, when it is of this brief's picture. */
  running: ProofDto | null;
  /** The newest that ended. */
  ended: ProofDto | null;
}

export function StopSentence({ brief, forecast, running, ended }: Props) {
  const of = running?.brief.quality ?? brief.quality;
  const clauses = stopClauses(of);
  const live = forecast?.endsBy ?? null;
  const timed =
    ended &&
    ended.state === 'done' &&
    ended.brief.quality.minutes !== null &&
    ended.seconds >= ended.brief.quality.minutes * 60 * 0.98 &&
    ended.grain !== null
      ? ended
      : null;
  return (
    <div className="sec">
      <p className="say">
        {running ? `Proof ${running.number} stops` : 'Stops'}{' '}
        {clauses.map(({ by, text }, i) => (
          <span key={by}>
            {i === 0 ? '' : i === clauses.length - 1 ? ' or ' : ', '}
            {clauses.length > 1 && by === live ? <em className="livec">{text}</em> : text}
          </span>
        ))}
        {clauses.length > 1 ? ', whichever comes first' : ''}.
        {running?.grain != null
          ? ` So far the grain before denoising is ${running.grain.toFixed(1)}, with ${Math.round(running.samples)} samples.`
          : ''}
      </p>
      {timed ? (
        <p className="note">
          Time ended proof {timed.number} at a grain before denoising of {timed.grain!.toFixed(1)}, with{' '}
          {Math.round(timed.samples)} samples; twice the time, {duration(timed.seconds * 2)}, would bring about{' '}
          {grainAfter(timed.grain!, 2).toFixed(1)}.
        </p>
      ) : null}
    </div>
  );
}
