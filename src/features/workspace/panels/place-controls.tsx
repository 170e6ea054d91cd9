/** Where and when a sky is: a town or coordinates, whose time zone sets the clock; a date and an hour that can be typed. */
import { useEffect, useId, useRef, useState } from 'react';
import type { TownDto } from '../../../contracts/dto';
import type { SkySurroundings } from '../../../core/brief/brief';
import { limitsOf } from '../../../core/brief/limits';
import { localTime, twoDigits } from '../../../core/brief/local-time';
import { PLACES } from '../../../core/catalogue/places';
import { NumberField } from '../../../ui/number-field';
import { send } from '../../shared/send';
import { PLACE_COPY } from '../copy';
import { dayOfYear, isoInZone, type LocalMoment } from './sky-time';

interface Props {
  sky: SkySurroundings;
  /** Null until it is known. */
  zone: string | null;
  /** Also with a moment, which is by the clock of the new place. */
  onPlace: (place: { latitude_deg: number; longitude_deg: number }) => void;
  onMoment: (moment: LocalMoment) => void;
}

type Coordinates = Pick<TownDto, 'latitude_deg' | 'longitude_deg'>;

const isAt = (a: Coordinates) => (b: Coordinates) =>
  Math.abs(a.latitude_deg - b.latitude_deg) < 1e-6 && Math.abs(a.longitude_deg - b.longitude_deg) < 1e-6;
const nameOf = ({ name, region, country }: TownDto) =>
  [name, region === name ? '' : region, country].filter(Boolean).join(', ');
const SAMPLE_TOWNS: readonly TownDto[] = PLACES.map(({ name, latitude_deg, longitude_deg }) => ({
  name,
  region: '',
  country: '',
  latitude_deg,
  longitude_deg
}));

export function PlaceControls({ sky, zone, onPlace, onMoment }: Props) {
  const t = localTime(sky.time);
  const day = dayOfYear(t);
  const minutes = t.hour * 60 + t.minute;
  return (
    <>
      <TownField sky={sky} onPlace={onPlace} />
      <div className="pair">
        <NumberField
          label="Latitude"
          value={sky.latitude_deg}
          {...limitsOf('surroundings.sky.latitude_deg')}
          digits={2}
          unit="° north"
          onChange={(latitude_deg) => onPlace({ latitude_deg, longitude_deg: sky.longitude_deg })}
        />
        <NumberField
          label="Longitude"
          value={sky.longitude_deg}
          {...limitsOf('surroundings.sky.longitude_deg')}
          digits={2}
          unit="° east"
          onChange={(longitude_deg) => onPlace({ latitude_deg: sky.latitude_deg, longitude_deg })}
        />
        <label>
          <span className="lab">{PLACE_COPY.date}</span>
          <span className="fld n">
            <input
              type="date"
              required
              value={`${t.year}-${twoDigits(t.month)}-${twoDigits(t.day)}`}
              min="1950-01-01"
              max="2050-12-31"
              onChange={(e) => {
                const [year, month, date] = e.target.value.split('-').map(Number);
                if (year && month && date && year >= 1950 && year <= 2050)
                  onMoment({ year, day: dayOfYear({ year, month, day: date }), minutes });
              }}
            />
          </span>
        </label>
        <label>
          <span className="lab">{PLACE_COPY.hour}</span>
          <span className="fld n">
            <input
              type="time"
              required
              value={`${twoDigits(t.hour)}:${twoDigits(t.minute)}`}
              onChange={(e) => {
                const [hour, minute] = e.target.value.split(':').map(Number);
                if (hour !== undefined && minute !== undefined && Number.isFinite(hour + minute))
                  onMoment({ year: t.year, day, minutes: hour * 60 + minute });
              }}
            />
          </span>
        </label>
      </div>
      <p className="note">
        {PLACE_COPY.clock(
          t.offset,
          zone,
          zone !== null && isoInZone({ year: t.year, day, minutes }, zone) !== sky.time
        )}
      </p>
    </>
  );
}

const UNASKED = { found: SAMPLE_TOWNS, of: null };

/** A town is found while its name is typed; Enter takes the first. */
function TownField({ sky, onPlace }: Pick<Props, 'sky' | 'onPlace'>) {
  const list = useId();
  const [text, setText] = useState<string | null>(null);
  // what was found, and for which text
  const [{ found, of }, setFound] = useState<{ found: readonly TownDto[]; of: string | null }>(UNASKED);
  const takesFirst = useRef(false);
  const [fault, setFault] = useState<string | null>(null);
  const [chosen, setChosen] = useState<TownDto | null>(null);
  const here = [...(chosen ? [chosen] : []), ...SAMPLE_TOWNS].find(isAt(sky));
  const take = (town: TownDto) => {
    takesFirst.current = false;
    setChosen(town);
    setText(null);
    setFault(null);
    onPlace({ latitude_deg: town.latitude_deg, longitude_deg: town.longitude_deg });
  };
  useEffect(() => {
    if (text === null || text.trim().length < 2) return setFound(UNASKED);
    let left = false;
    const timer = setTimeout(async () => {
      const sent = await send<{ towns: TownDto[] }>('GET', `/api/towns?name=${encodeURIComponent(text)}`);
      if (left || !sent.ok) return;
      setFound({ found: sent.value.towns, of: text });
      if (takesFirst.current && sent.value.towns[0]) return take(sent.value.towns[0]);
      setFault(sent.value.towns.length === 0 ? PLACE_COPY.unknown(text) : null);
    }, 150);
    return () => {
      left = true;
      clearTimeout(timer);
    };
  }, [text]);
  return (
    <label className="fldbox">
      <span className="lab">{PLACE_COPY.place}</span>
      <span className="fld">
        <input
          list={list}
          value={text ?? (here ? nameOf(here) : '')}
          placeholder={PLACE_COPY.search}
          aria-label={PLACE_COPY.place}
          onFocus={(e) => e.currentTarget.select()}
          onChange={(e) => {
            const typed = e.target.value;
            const town = found.find((one) => nameOf(one) === typed);
            if (town) take(town);
            else {
              takesFirst.current = false;
              setText(typed);
            }
          }}
          onKeyDown={(e) => {
            if (e.key !== 'Enter' || text === null) return;
            if (of === text && found[0]) take(found[0]);
            // what is found for it is still on its way
            else takesFirst.current = of !== text;
          }}
          onBlur={() => {
            setText(null);
            setFault(null);
          }}
        />
      </span>
      <datalist id={list}>
        {found.map((town) => (
          <option key={`${nameOf(town)} ${town.latitude_deg} ${town.longitude_deg}`} value={nameOf(town)} />
        ))}
      </datalist>
      {fault ? (
        <span className="fault" role="alert">
          {fault}
        </span>
      ) : null}
    </label>
  );
}
