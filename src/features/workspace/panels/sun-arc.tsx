/** The sun's way over the day in azimuth and elevation, with the sun as its handle. */
import { type KeyboardEvent, type PointerEvent, useMemo, useRef } from 'react';
import type { SkySurroundings } from '../../../core/brief/brief';
import { twoDigits } from '../../../core/brief/local-time';
import { sunPosition } from '../../../core/lights/sun/position';
import { degrees } from '../../../core/units/units';
import { sliderValue } from '../../../ui/slider-keys';
import { useDrag } from '../../../ui/use-drag';
import { isoOnDay } from './sky-time';

interface ArcProps {
  sky: SkySurroundings;
  before: SkySurroundings | null;
  day: number;
  minutes: number;
  year: number;
  offset: string;
  onSet: (minutes: number, joins: boolean) => void;
}

const HOURS = [3, 6, 9, 12, 15, 18, 21];
// Lower, a label would lie on the horizon.
const MIN_LABELLED_DEG = 11;

/** Of a day. */
const LAST_MINUTE = 1439;

/** In the southern hemisphere north is in the middle. */
export function SunArc({ sky, before, day, minutes, year, offset, onSet }: ArcProps) {
  const svg = useRef<SVGSVGElement>(null);
  const south = sky.latitude_deg < 0;
  const place = (time: string): [number, number, number] => {
    const p = sunPosition(Date.parse(time), sky.latitude_deg, sky.longitude_deg);
    let a = degrees(p.azimuth) - (south ? 0 : 180);
    if (a > 180) a -= 360;
    return [148 + (south ? -a : a) * 1.18, 104 - degrees(p.elevation) * 1.4, degrees(p.elevation)];
  };
  // the way depends on place and day only
  const paths = useMemo(() => {
    const wayOf = (d: number) => {
      let path = '';
      let pen = false;
      for (let m = 0; m < 1440; m += 8) {
        const [x, y, h] = place(isoOnDay(year, d, m, offset));
        pen = h > -1 && path !== '' && pen;
        if (h > -1) path += `${pen ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`;
        pen = h > -1;
      }
      return path;
    };
    // full hours with the sun well up, every third one; below the way, towards its middle
    const hours = HOURS.map((hour) => ({ hour, at: place(isoOnDay(year, day, hour * 60, offset)) })).filter(
      ({ at }) => at[2] > MIN_LABELLED_DEG
    );
    return { day: wayOf(day), june: wayOf(172), december: wayOf(355), hours };
  }, [sky.latitude_deg, sky.longitude_deg, day, year, offset]);
  const [x, y, h] = place(isoOnDay(year, day, minutes, offset));
  const changed = before !== null && before.time !== sky.time;
  const fromEvent = (e: PointerEvent) => {
    const box = svg.current!.getBoundingClientRect();
    const px = ((e.clientX - box.left) / box.width) * 296;
    let best = minutes;
    let nearest = Number.POSITIVE_INFINITY;
    for (let m = 0; m < 1440; m += 5) {
      const [qx, , qh] = place(isoOnDay(year, day, m, offset));
      if (qh < -7) continue;
      const d = Math.abs(qx - px);
      if (d < nearest) {
        nearest = d;
        best = m;
      }
    }
    return best;
  };
  const drag = useDrag<SVGSVGElement>((e, joins) => onSet(fromEvent(e), joins));
  const keys = (e: KeyboardEvent) => {
    const next = sliderValue(e, { value: minutes, min: 0, max: LAST_MINUTE, step: 5 });
    if (next === null) return;
    e.preventDefault();
    onSet(Math.min(LAST_MINUTE, Math.max(0, next)), false);
  };
  const text = `${twoDigits(Math.floor(minutes / 60))}:${twoDigits(minutes % 60)}`;
  return (
    <svg
      ref={svg}
      className="scale sunarc"
      viewBox="0 0 296 128"
      role="slider"
      tabIndex={0}
      aria-label="Hour"
      aria-valuemin={0}
      aria-valuemax={LAST_MINUTE}
      aria-valuenow={minutes}
      aria-valuetext={text}
      style={{ touchAction: 'none', cursor: 'grab' }}
      onKeyDown={keys}
      {...drag}
    >
      <clipPath id="sky-above">
        <rect x="0" y="0" width="296" height="104" />
      </clipPath>
      <rect width="296" height="128" fill="transparent" />
      <g clipPath="url(#sky-above)">
        <path className="yr" d={paths.june} />
        <path className="yr" d={paths.december} />
        <path className="day" d={paths.day} />
        {paths.hours.map(({ hour, at: [hx, hy] }) => (
          <g key={hour} className="hour">
            <circle cx={hx} cy={hy} r="2" />
            <text x={hx + (148 - hx) * 0.045} y={hy + 14} textAnchor="middle">
              {hour}
            </text>
          </g>
        ))}
      </g>
      <line className="axis" x1="0" x2="296" y1="104.5" y2="104.5" />
      {(south ? ['W', 'NW', 'N', 'NE', 'E'] : ['E', 'SE', 'S', 'SW', 'W']).map((label, i) => (
        <g key={label}>
          <line className="tick" x1={148 + (i - 2) * 53} x2={148 + (i - 2) * 53} y1="104" y2="109" />
          <text x={148 + (i - 2) * 53} y="122" textAnchor="middle">
            {label}
          </text>
        </g>
      ))}
      {h > -1 ? <line className="drop" x1={x} x2={x} y1={y} y2="104" /> : null}
      <circle className={`sun${changed ? ' ch' : ''}`} cx={x} cy={Math.min(y, 112)} r="7" opacity={h > -1 ? 1 : 0.4} />
      <text
        className="val"
        x={x > 230 ? x - 14 : x + 14}
        y={Math.min(y, 112) - 8}
        textAnchor={x > 230 ? 'end' : 'start'}
      >
        {text}
      </text>
    </svg>
  );
}
