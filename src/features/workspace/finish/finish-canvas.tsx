/** The film on the sheet as it is finished now and as it was, parted by a line where that is wanted. */
import type { CSSProperties } from 'react';
import { useDrag } from '../../../ui/use-drag';
import { FINISH_COPY as COPY } from './copy';
import type { Finishing } from './use-finishing';

const STEP = 0.02;

interface Props {
  finishing: Finishing;
  name: string;
  /** Of its picture on the sheet. */
  place: CSSProperties;
}

export function FinishCanvas({ finishing, name, place }: Props) {
  const { now, was, compared, divider, onDivider, shown, film } = finishing;
  const drag = useDrag<HTMLDivElement>((event) => {
    const box = event.currentTarget.getBoundingClientRect();
    onDivider(Math.min(1, Math.max(0, (event.clientX - box.left) / box.width)));
  });
  const seen =
    compared === 'before' ? 'inset(0)' : compared === 'parted' ? `inset(0 ${100 * (1 - divider)}% 0 0)` : null;
  return (
    <div className="finished" hidden={!film} style={place}>
      <canvas
        ref={now}
        role="img"
        aria-label={name}
        data-finish={shown?.key}
        data-level={shown?.level}
        data-ms={shown ? Math.round(shown.ms) : undefined}
      />
      <canvas ref={was} aria-hidden style={{ clipPath: seen ?? undefined, visibility: seen ? 'visible' : 'hidden' }} />
      {compared === 'parted' ? (
        <div className="parting" {...drag}>
          <div
            className="line"
            style={{ left: `${100 * divider}%` }}
            role="slider"
            tabIndex={0}
            aria-label={COPY.divider}
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(100 * divider)}
            aria-valuetext={`${Math.round(100 * divider)} %`}
            onKeyDown={(event) => {
              const by = event.key === 'ArrowLeft' ? -STEP : event.key === 'ArrowRight' ? STEP : 0;
              if (by === 0) return;
              event.preventDefault();
              onDivider(Math.min(1, Math.max(0, divider + by)));
            }}
          >
            <svg viewBox="0 0 14 18" aria-hidden="true">
              <path d="M1 1h12v10l-6 6-6-6z" />
            </svg>
          </div>
          <span className="l">{COPY.compared.before}</span>
          <span className="r">{COPY.compared.after}</span>
        </div>
      ) : null}
    </div>
  );
}
