/** What the brief as it stands will take. */
import { about, duration } from '../../../core/brief/sentence';
import { bytes } from '../../shared/send';
import type { ForecastState } from '../use-forecast';

/** `file`: what the picture will weigh to hand over, measured on the newest proof; null before there is one. */
export function ForecastFigures({
  forecast: { now, stale, fault },
  file
}: {
  forecast: ForecastState;
  file: { name: string; bytes: number } | null;
}) {
  if (!now)
    return (
      <p className="note">
        {fault ? `No forecast: ${fault}.` : 'The forecast is being measured: a few little patches of this picture.'}
      </p>
    );
  return (
    <>
      <dl className={`fig${stale ? ' stale' : ''}`}>
        <div>
          <dt>Ready in</dt>
          <dd title={`Nine of ten between ${duration(now.low)} and ${duration(now.high)}`}>{about(now.seconds)}</dd>
        </div>
        <div>
          <dt>Memory</dt>
          <dd>{bytes(now.memoryBytes)}</dd>
        </div>
        <div>
          <dt title="The film that is kept with the proof">On disk</dt>
          <dd>{bytes(now.diskBytes)}</dd>
        </div>
        {file ? (
          <div>
            <dt>{file.name}</dt>
            <dd>{bytes(file.bytes)}</dd>
          </div>
        ) : null}
      </dl>
      <p className="note">
        {stale
          ? 'Measured before the last change; measuring again.'
          : `Between ${duration(now.low)} and ${duration(now.high)}, measured on this picture.`}
      </p>
    </>
  );
}
