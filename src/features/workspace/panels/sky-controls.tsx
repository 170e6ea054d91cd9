/**
 * A sky: place, date and hour, the sun's way over the day with the sun as handle, the air and its clouds, sun, sky and
 * moon apart.
 */
import type { SkySurroundings } from '../../../core/brief/brief';
import { localTime, offsetMs, twoDigits } from '../../../core/brief/local-time';
import { MONTHS } from '../../../core/brief/sentence';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import { skyLights } from '../../../core/lights/sky/sky-lights';
import { sunTimes } from '../../../core/lights/sun/position';
import { degrees } from '../../../core/units/units';
import { PointerScale } from '../../../ui/pointer-scale';
import { rightOfView, sunSentence } from '../copy';
import { AirControls } from './air-controls';
import { PlaceControls } from './place-controls';
import { dayOfYear, isoInZone, isoOnDay, type LocalMoment } from './sky-time';
import { SunArc } from './sun-arc';
import { useZone, zoneAt } from './use-zone';

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
  const zone = useZone(sky.latitude_deg, sky.longitude_deg);
  const setMoment = (moment: LocalMoment, joins: boolean) =>
    onSet(
      {
        time: zone === null ? isoOnDay(moment.year, moment.day, moment.minutes, t.offset) : isoInZone(moment, zone)
      },
      joins
    );
  const set = (d: number, m: number, joins: boolean) => setMoment({ year: t.year, day: d, minutes: m }, joins);
  // the clock stays, by that of the new place
  const moveTo = async (place: Pick<SkySurroundings, 'latitude_deg' | 'longitude_deg'>) => {
    const next = await zoneAt(place.latitude_deg, place.longitude_deg);
    onSet({ ...place, time: isoInZone({ year: t.year, day, minutes }, next) });
  };
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
        <PlaceControls
          sky={sky}
          zone={zone}
          onPlace={(place) => void moveTo(place)}
          onMoment={(m) => setMoment(m, false)}
        />
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
