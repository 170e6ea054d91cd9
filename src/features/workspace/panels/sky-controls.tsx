/**
 * A sky: place, date and hour, the sun's way over the day with the sun as handle, the air and its clouds, sun, sky and
 * moon apart.
 */
import { limitsOf } from '../../../core/brief/limits';
import type { SkySurroundings } from '../../../core/brief/brief';
import { localTime, offsetMs, twoDigits } from '../../../core/brief/local-time';
import { MONTHS } from '../../../core/brief/sentence';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import { PLACES } from '../../../core/catalogue/places';
import { skyLights } from '../../../core/lights/sky/sky-lights';
import { sunTimes } from '../../../core/lights/sun/position';
import { degrees } from '../../../core/units/units';
import { NumberField } from '../../../ui/number-field';
import { PointerScale } from '../../../ui/pointer-scale';
import { rightOfView, sunSentence } from '../copy';
import { AirControls } from './air-controls';
import { dayOfYear, isoOnDay } from './sky-time';
import { SunArc } from './sun-arc';

interface Props {
  sky: SkySurroundings;
  before: SkySurroundings | null;
  view: FreeViewpoint;
  onSet: (part: Partial<SkySurroundings>, joins?: boolean) => void;
}

const MONTH_STARTS = Array.from({ length: 13 }, (_, m) => dayOfYear({ year: 2026, month: m + 1, day: 1 }));

export function SkyControls({ sky, before, view, onSet }: Props) {
  const t = localTime(sky.time);
  const day = dayOfYear(t);
  const minutes = t.hour * 60 + t.minute;
  const set = (d: number, m: number, joins: boolean) => onSet({ time: isoOnDay(t.year, d, m, t.offset) }, joins);
  const place = PLACES.find((p) => p.latitude_deg === sky.latitude_deg && p.longitude_deg === sky.longitude_deg);
  const times = sunTimes(Date.parse(sky.time), sky.latitude_deg, sky.longitude_deg, offsetMs(t.offset));
  const clock = (ms: number) => {
    const d = new Date(ms + offsetMs(t.offset));
    return `${twoDigits(d.getUTCHours())}:${twoDigits(d.getUTCMinutes())}`;
  };
  const lights = skyLights(sky);
  const now = lights.sun;
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
                  if (p)
                    onSet({
                      latitude_deg: p.latitude_deg,
                      longitude_deg: p.longitude_deg,
                      time: sky.time.replace(
                        /(Z|[+-]\d{2}:?\d{2})$/,
                        `${p.utc_offset_h < 0 ? '-' : '+'}${twoDigits(Math.abs(p.utc_offset_h))}:00`
                      )
                    });
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
          <NumberField
            label="Latitude"
            value={sky.latitude_deg}
            {...limitsOf('surroundings.sky.latitude_deg')}
            digits={2}
            unit="° north"
            onChange={(latitude_deg) => onSet({ latitude_deg })}
          />
          <NumberField
            label="Longitude"
            value={sky.longitude_deg}
            {...limitsOf('surroundings.sky.longitude_deg')}
            digits={2}
            unit="° east"
            onChange={(longitude_deg) => onSet({ longitude_deg })}
          />
        </div>
        <div style={{ marginTop: 9 }}>
          <PointerScale
            label="Date"
            value={day}
            min={1}
            max={365}
            step={1}
            ticks={MONTH_STARTS.map((value, m) => ({
              value: Math.min(365, value),
              strong: true,
              label: m < 12 ? 'JFMAMJJASOND'[m] : undefined
            }))}
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
          <span className="note n">
            {times
              ? `up ${clock(times.up)}, down ${clock(times.down)}`
              : now.elevation > 0
                ? 'the sun does not set'
                : 'the sun does not rise'}
          </span>
        </div>
        <SunArc
          sky={sky}
          day={day}
          minutes={minutes}
          year={t.year}
          offset={t.offset}
          before={before}
          onSet={(m, joins) => set(day, m, joins)}
        />
        <p className="say">
          {sunSentence(degrees(now.elevation), degrees(now.azimuth), rightOfView(now.direction, view))}
        </p>
      </div>
      <AirControls
        sky={sky}
        before={before}
        light={now.elevation < 0 && lights.moon.elevation > 0 ? 'moon' : 'sun'}
        onSet={onSet}
      />
    </>
  );
}
