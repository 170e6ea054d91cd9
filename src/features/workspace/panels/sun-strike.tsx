/**
 * "The sun falls on this face at 30 degrees": a face pressed on the stage, an angle, and when in the year it is so
 * here, or which north would make it so.
 */
import { useMemo, useState } from 'react';
import type { SkySurroundings } from '../../../core/brief/brief';
import { isoAt, localTime, offsetMs, twoDigits } from '../../../core/brief/local-time';
import { MONTHS } from '../../../core/brief/sentence';
import { closestStrike, northsFor, strikeAngle, strikes } from '../../../core/lights/sun/strike';
import type { Vec3 } from '../../../core/math/vec3';
import { NumberField } from '../../../ui/number-field';
import type { Picking } from '../view';

interface Props {
  sky: SkySurroundings;
  picking: Picking | null;
  onPicking: (picking: Picking | null) => void;
  onSet: (part: Partial<SkySurroundings>, joins?: boolean) => void;
}

const MAX_OFFERS = 6;

export function SunStrike({ sky, picking, onPicking, onSet }: Props) {
  const [face, setFace] = useState<Vec3 | null>(null);
  const [angle, setAngle] = useState(30);
  const asking = picking?.asks === 'face';
  const t = localTime(sky.time);
  const offset = offsetMs(t.offset);
  const { latitude_deg, longitude_deg, north_deg, mirror_deg } = sky;
  const found = useMemo(() => {
    if (!face) return null;
    const place = { latitude_deg, longitude_deg, north_deg, mirror_deg };
    const now = Date.parse(sky.time);
    const offers = strikes(place, face, angle, now, offset).slice(0, MAX_OFFERS);
    return {
      now: strikeAngle(place, face, now),
      offers,
      closest: offers.length ? null : closestStrike(place, face, angle, now, offset),
      norths: northsFor(sky, face, angle)
    };
  }, [face, angle, latitude_deg, longitude_deg, north_deg, mirror_deg, sky.time, offset]);
  const whenOf = (ms: number) => {
    const d = new Date(ms + offset);
    return {
      year: d.getUTCFullYear(),
      month: d.getUTCMonth() + 1,
      day: d.getUTCDate(),
      minutes: d.getUTCHours() * 60 + d.getUTCMinutes()
    };
  };
  const say = (ms: number) => {
    const w = whenOf(ms);
    return `${w.day}\u00a0${MONTHS[w.month - 1]!.slice(0, 3)}, ${twoDigits(Math.floor(w.minutes / 60))}:${twoDigits(w.minutes % 60)}`;
  };
  const go = (ms: number) => {
    const w = whenOf(ms);
    onSet({ time: isoAt({ ...w, offset: t.offset }, w.minutes) });
  };
  return (
    <div className="sec">
      <div className="row">
        <span className="lab">When does the sun reach a surface?</span>
        <button
          type="button"
          className="lk act"
          aria-pressed={asking}
          onClick={() =>
            onPicking(
              asking
                ? null
                : {
                    asks: 'face',
                    says: 'Pick the surface that the sun should reach.',
                    onPick: (_point, normal, joins) => !joins && setFace(normal)
                  }
            )
          }
        >
          {asking ? 'Done' : face ? 'Pick another surface' : 'Pick a surface'}
        </button>
      </div>
      {face && found ? (
        <>
          <div className="rows">
            <span>
              {found.now === null
                ? 'The sun is down now.'
                : found.now <= 0
                  ? 'Now it lies in shade.'
                  : `Now it is struck at ${found.now.toFixed(0)}°.`}{' '}
              It should be at
            </span>
            <NumberField
              label="Angle between sunlight and face"
              value={angle}
              min={1}
              max={90}
              unit="°"
              onChange={setAngle}
            />
          </div>
          {found.offers.length > 0 ? (
            <div className="list two-up" role="group" aria-label="Times when the sun reaches it">
              {found.offers.map(({ at }) => (
                <button
                  key={at}
                  type="button"
                  className="n"
                  aria-pressed={Math.abs(at - Date.parse(sky.time)) < 90_000}
                  onClick={() => go(at)}
                >
                  {say(at)}
                </button>
              ))}
            </div>
          ) : (
            <p className="say">
              {found.closest ? (
                <>
                  Never here; closest is {found.closest.angle_deg.toFixed(0)}° on{' '}
                  <button type="button" className="lk act" onClick={() => go(found.closest!.at)}>
                    {say(found.closest.at)}
                  </button>
                  .
                </>
              ) : (
                'The sun never sees this face here.'
              )}
            </p>
          )}
          {found.norths.length > 0 ? (
            <p className="note">
              Or at this hour, with north turned for the picture:{' '}
              {found.norths.map((north, i) => (
                <span key={north}>
                  {i > 0 ? ' or ' : ''}
                  <button type="button" className="lk act n" onClick={() => onSet({ north_deg: north })}>
                    {north.toFixed(0)}°
                  </button>
                </span>
              ))}
            </p>
          ) : null}
        </>
      ) : (
        <p className="note">Finds the dates and hours at which sunlight falls on it at an angle.</p>
      )}
    </div>
  );
}
