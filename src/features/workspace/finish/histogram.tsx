/** How much of the picture has each lightness, now and as the proof was finished, and what is cut off. */
import type { Histogram as Counts } from '../../../core/finishing/stage-developer';
import { FINISH_COPY as COPY } from './copy';

const WIDTH = 296;
const HEIGHT = 56;
const BASE = 58;
const MARKS = [0, 25, 50, 75, 100];
const BARS = 50;

/** Shares by steps of two L*; roots, so that small ones are seen. */
const heights = ({ counts }: Counts): number[] => {
  const bars = Array.from({ length: BARS }, (_, i) => counts[2 * i]! + counts[2 * i + 1]!);
  bars[BARS - 1]! += counts[100]!;
  const all = Math.max(
    1,
    bars.reduce((a, b) => a + b, 0)
  );
  return bars.map((n) => Math.sqrt(n / all));
};
const share = (n: number, { counts }: Counts) => {
  const all = counts.reduce((a, b) => a + b, 0);
  return all === 0 ? '0.0' : ((100 * n) / all).toFixed(1);
};
const x = (i: number) => (i * WIDTH) / BARS;

export function Histogram({ now, before }: { now: Counts | null; before: Counts | null }) {
  const bars = now ? heights(now) : [];
  const was = before ? heights(before) : [];
  const most = Math.max(0.05, ...bars, ...was);
  const y = (v: number) => BASE - (v / most) * HEIGHT;
  return (
    <div className="sec">
      <div className="row">
        <span className="lab">{COPY.histogram}</span>
        <span className="note n" title={COPY.cutHint} role="status">
          {now ? COPY.cut(share(now.white, now), share(now.black, now)) : ''}
        </span>
      </div>
      <svg className="scale hist" viewBox={`0 0 ${WIDTH} 76`} role="img" aria-label={COPY.histogram}>
        {bars.map((v, i) => (
          <rect key={x(i)} x={x(i)} y={y(v)} width={WIDTH / BARS - 0.6} height={BASE - y(v)} className="bar" />
        ))}
        {was.length > 0 ? (
          <path
            className="then"
            fill="none"
            d={`M0 ${BASE}${was.map((v, i) => `L${x(i)} ${y(v)}L${x(i + 1)} ${y(v)}`).join('')}L${WIDTH} ${BASE}`}
          />
        ) : null}
        <line className="axis" x1="0" x2={WIDTH} y1={BASE} y2={BASE} />
        {MARKS.map((l) => (
          <text key={l} x={(l / 100) * WIDTH} y="73" textAnchor={l === 0 ? 'start' : l === 100 ? 'end' : 'middle'}>
            {l === 100 ? '100 L*' : l}
          </text>
        ))}
      </svg>
    </div>
  );
}
