/** Place, date and hour of a sky: a year rule, the sun's way over the day with the sun as handle, haze and cloud. */
import { type KeyboardEvent, type PointerEvent, useMemo, useRef } from 'react';
import type { SkySurroundings } from '../../../core/brief/brief';
import { evText } from '../../../core/brief/amounts';
import { isoAt, localTime, offsetMs, twoDigits } from '../../../core/brief/local-time';
import { MONTHS } from '../../../core/brief/sentence';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import { PLACES } from '../../../core/catalogue/places';
import { sunPosition, sunTimes } from '../../../core/lights/sun/position';
import { degrees } from '../../../core/units/units';
import { NumberField } from '../../../ui/number-field';
import { PointerScale } from '../../../ui/pointer-scale';
import { useDrag } from '../../../ui/use-drag';
import { sunSentence } from '../copy';

interface Props {
  sky: SkySurroundings;
  before: SkySurroundings | null;
  view: FreeViewpoint;
  onSet: (part: Partial<SkySurroundings>, joins?: boolean) => void;
}

const DAY_MS = 86_400_000;
const STRENGTHS = [-4, -3, -2, -1, 0, 1, 2, 3, 4].map((value) => ({ value, strong: value === 0 }));
const strength = (ev: number) => (ev === 0 ? 'true' : evText(ev));
const iso = (year: number, dayOfYear: number, minutes: number, offset: string) => {
  const date = new Date(Date.UTC(year, 0, 1) + (dayOfYear - 1) * DAY_MS);
  return isoAt({ year, month: date.getUTCMonth() + 1, day: date.getUTCDate(), offset }, minutes);
};
const dayOfYear = (t: { year: number; month: number; day: number }) => Math.round((Date.UTC(t.year, t.month - 1, t.day) - Date.UTC(t.year, 0, 1)) / DAY_MS) + 1;
const MONTH_STARTS = Array.from({ length: 13 }, (_, m) => Math.round((Date.UTC(2026, m, 1) - Date.UTC(2026, 0, 1)) / DAY_MS) + 1);

export function SkyControls({ sky, before, view, onSet }: Props) {
  const t = localTime(sky.time);
  const day = dayOfYear(t);
  const minutes = t.hour * 60 + t.minute;
  const set = (d: number, m: number, joins: boolean) => onSet({ time: iso(t.year, d, m, t.offset) }, joins);
  const place = PLACES.find((p) => p.latitude_deg === sky.latitude_deg && p.longitude_deg === sky.longitude_deg);
  const times = sunTimes(Date.parse(sky.time), sky.latitude_deg, sky.longitude_deg, offsetMs(t.offset));
  const clock = (ms: number) => {
    const d = new Date(ms + offsetMs(t.offset));
    return `${twoDigits(d.getUTCHours())}:${twoDigits(d.getUTCMinutes())}`;
  };
  const now = sunPosition(Date.parse(sky.time), sky.latitude_deg, sky.longitude_deg);
  const heading = (Math.atan2(view.target_m[0] - view.position_m[0], -(view.target_m[2] - view.position_m[2])) * 180) / Math.PI + sky.north_deg;
  const wasDay = before ? dayOfYear(localTime(before.time)) : null;
  return (
    <>
      <div className="sec" style={{ paddingBottom: 10 }}>
        <div style={{ display: 'grid', gridTemplateColumns: '1fr 104px', gap: 20 }}>
          <label>
            <span className="lab">Place</span>
            <span className="fld">
              <select
                className="grow"
                aria-label="Place"
                value={place?.name ?? ''}
                onChange={(e) => {
                  const p = PLACES.find((q) => q.name === e.target.value);
                  if (p) onSet({ latitude_deg: p.latitude_deg, longitude_deg: p.longitude_deg, time: sky.time.replace(/(Z|[+-]\d{2}:?\d{2})$/, `${p.utc_offset_h < 0 ? '-' : '+'}${twoDigits(Math.abs(p.utc_offset_h))}:00`) });
                }}
              >
                {place ? null : <option value="">own place</option>}
                {PLACES.map((p) => (
                  <option key={p.name}>{p.name}</option>
                ))}
              </select>
            </span>
          </label>
          <div>
            <span className="lab">Date</span>
            <span className="fld n">
              {t.day} {MONTHS[t.month - 1]}
            </span>
          </div>
          <NumberField label="Latitude" value={sky.latitude_deg} min={-90} max={90} digits={2} unit="° north" onChange={(latitude_deg) => onSet({ latitude_deg })} />
          <NumberField label="Longitude" value={sky.longitude_deg} min={-180} max={180} digits={2} unit="° east" onChange={(longitude_deg) => onSet({ longitude_deg })} />
        </div>
        <div style={{ marginTop: 9 }}>
          <PointerScale
            label="Date"
            value={day}
            min={1}
            max={365}
            step={1}
            ticks={MONTH_STARTS.map((value, m) => ({ value: Math.min(365, value), strong: true, label: m < 12 ? 'JFMAMJJASOND'[m] : undefined }))}
            valueText={`${t.day} ${MONTHS[t.month - 1]}`}
            was={wasDay}
            changed={wasDay !== null && wasDay !== day}
            onChange={(d, joins) => set(d, minutes, joins)}
          />
        </div>
      </div>
      <div className="sec" style={{ padding: '10px 0 2px' }}>
        <div className="row">
          <span className="lab">Hour</span>
          <span className="note n">{times ? `up ${clock(times.up)}, down ${clock(times.down)}` : now.elevation > 0 ? 'the sun does not set' : 'the sun does not rise'}</span>
        </div>
        <SunArc sky={sky} day={day} minutes={minutes} year={t.year} offset={t.offset} before={before} onSet={(m, joins) => set(day, m, joins)} />
        <p className="say">{sunSentence(degrees(now.elevation), degrees(now.azimuth), degrees(now.azimuth) - heading)}</p>
      </div>
      <div className="sec" style={{ marginTop: 12, display: 'grid', gap: 9 }}>
        <div className="ctl">
          <span className="lab">Haze</span>
          <PointerScale label="Haze" width={130} value={sky.visibility_km} min={5} max={150} step={1} logarithmic ticks={[5, 10, 20, 40, 80, 150].map((value) => ({ value, strong: value === 5 || value === 150 }))} valueText={`${sky.visibility_km} km sight`} was={before?.visibility_km} changed={before !== null && before.visibility_km !== sky.visibility_km} onChange={(visibility_km, joins) => onSet({ visibility_km }, joins)} />
          <span className="n v">{sky.visibility_km}&nbsp;km sight</span>
        </div>
        <div className="ctl">
          <span className="lab">Cloud</span>
          <PointerScale label="Cloud" width={130} value={sky.cloud} min={0} max={1} step={0.05} ticks={[0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1].map((value) => ({ value, strong: value % 0.5 === 0 }))} valueText={`${Math.round(sky.cloud * 100)} %`} was={before?.cloud} changed={before !== null && before.cloud !== sky.cloud} onChange={(cloud, joins) => onSet({ cloud: Math.round(cloud * 100) / 100 }, joins)} />
          <span className="n v">{Math.round(sky.cloud * 100)}&nbsp;%</span>
        </div>
        {(
          [
            ['sun_ev', 'Sun'],
            ['sky_ev', 'Sky']
          ] as const
        ).map(([key, name]) => (
          <div key={key} className="ctl">
            <span className="lab">{name}</span>
            <PointerScale label={`Strength of the ${name.toLowerCase()}`} width={130} value={sky[key]} min={-4} max={4} step={0.1} ticks={STRENGTHS} valueText={strength(sky[key])} was={before?.[key] ?? null} changed={before !== null && before[key] !== sky[key]} onChange={(v, joins) => onSet({ [key]: Math.round(v * 10) / 10 }, joins)} />
            <span className="n v">{strength(sky[key])}</span>
          </div>
        ))}
      </div>
    </>
  );
}

interface ArcProps {
  sky: SkySurroundings;
  before: SkySurroundings | null;
  day: number;
  minutes: number;
  year: number;
  offset: string;
  onSet: (minutes: number, joins: boolean) => void;
}

/** The sun's way in azimuth and elevation; in the southern hemisphere north is in the middle. */
function SunArc({ sky, before, day, minutes, year, offset, onSet }: ArcProps) {
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
        const [x, y, h] = place(iso(year, d, m, offset));
        pen = h > -1 && path !== '' && pen;
        if (h > -1) path += `${pen ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`;
        pen = h > -1;
      }
      return path;
    };
    return { day: wayOf(day), june: wayOf(172), december: wayOf(355) };
  }, [sky.latitude_deg, sky.longitude_deg, day, year, offset]);
  const [x, y, h] = place(iso(year, day, minutes, offset));
  const changed = before !== null && before.time !== sky.time;
  const fromEvent = (e: PointerEvent) => {
    const box = svg.current!.getBoundingClientRect();
    const px = ((e.clientX - box.left) / box.width) * 296;
    let best = minutes;
    let nearest = Number.POSITIVE_INFINITY;
    for (let m = 0; m < 1440; m += 5) {
      const [qx, , qh] = place(iso(year, day, m, offset));
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
    const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[e.key];
    if (by === undefined) return;
    e.preventDefault();
    onSet(minutes + by * (e.shiftKey ? 50 : 5), false);
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
      aria-valuemax={1439}
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
      <text className="val" x={x > 230 ? x - 14 : x + 14} y={Math.min(y, 112) - 8} textAnchor={x > 230 ? 'end' : 'start'}>
        {text}
      </text>
    </svg>
  );
}
