/**
 * The forecast of a brief as it stands. Size, quality and samples are reckoned at once from the last probe; what
 * changes the light, the view or the materials is probed anew when it has rested, and until then the probe before
 * stands in.
 */
import { useEffect, useMemo, useState } from 'react';
import type { ProofDto } from '../../contracts/dto';
import type { Brief } from '../../core/brief/brief';
import { type Forecast, forecast, type ForecastOf, type Machine, type Probe } from '../../core/forecast/forecast';
import { forecastOf } from '../../core/forecast/forecast-of';
import { probeText } from '../../core/forecast/probe-brief';
import { send } from '../shared/send';

// After the last change, and after a refusal because something renders.
const RESTS_MS = 1200;
const AGAIN_MS = 5000;

export interface ForecastState {
  /** Of any variation of the brief's size and quality. */
  of: (what: ForecastOf) => Forecast | null;
  /** Of the brief as it stands. */
  now: Forecast | null;
  /** What it is reckoned from. */
  probe: Probe | null;
  /** A probe is awaited: what is said is of the brief before. */
  stale: boolean;
  /** Why there is none. */
  fault: string | null;
}

/** Raw grain after so many seconds, of the proof that renders, since one looks on. */
export function useGrainSoFar(running: ProofDto | null): readonly (readonly [number, number])[] {
  const [soFar, setSoFar] = useState<{ of: string; points: (readonly [number, number])[] } | null>(null);
  const { id = null, seconds = 0, grain = null } = running ?? {};
  useEffect(() => {
    if (id === null || grain === null || seconds <= 0) return;
    setSoFar((was) => ({ of: id, points: [...(was?.of === id ? was.points : []), [seconds, grain] as const] }));
  }, [id, seconds, grain]);
  return id !== null && soFar?.of === id ? soFar.points : NOTHING;
}
const NOTHING: readonly (readonly [number, number])[] = [];

export function useForecast(project: string, brief: Brief, machine: Machine, busy: boolean): ForecastState {
  const [probes, setProbes] = useState<ReadonlyMap<string, Probe>>(new Map());
  const [last, setLast] = useState<string | null>(null);
  const [fault, setFault] = useState<{ key: string; text: string } | null>(null);
  const [tries, setTries] = useState(0);
  const key = useMemo(() => probeText(brief), [brief]);
  const known = probes.has(key);
  useEffect(() => {
    if (known || busy || fault?.key === key) return;
    let left = false;
    let again: ReturnType<typeof setTimeout> | undefined;
    const rest = setTimeout(() => {
      void send<Probe>('POST', `/api/projects/${project}/probe`, { brief }).then((sent) => {
        if (sent.ok) {
          setProbes((all) => new Map(all).set(key, sent.value));
          setLast(key);
        } else if (left) return;
        else if (sent.code === 'busy') again = setTimeout(() => setTries((n) => n + 1), AGAIN_MS);
        else setFault({ key, text: sent.message });
      });
    }, RESTS_MS);
    return () => {
      left = true;
      clearTimeout(rest);
      clearTimeout(again);
    };
  }, [key, known, busy, project, tries]);
  const probe = probes.get(key) ?? (last === null ? null : (probes.get(last) ?? null));
  return useMemo(() => {
    const of = (what: ForecastOf) => (probe ? forecast(probe, machine, what) : null);
    return { of, probe, now: of(forecastOf(brief)), stale: !known, fault: fault?.key === key ? fault.text : null };
  }, [probe, machine, brief, known, fault, key]);
}
