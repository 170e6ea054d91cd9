/** What costs time in this picture, measured on it: each with the step that would lessen it. */
import { useEffect, useRef, useState } from 'react';
import { about } from '../../../core/brief/sentence';
import {
  type Cost,
  costSentence,
  type CostsSoFar,
  savingAction,
  takeSaving,
  worthSaying
} from '../../../core/forecast/costs';
import { probeText } from '../../../core/forecast/probe-brief';
import { follow } from '../../shared/send';
import type { PanelContext } from '../view';

type Props = Pick<PanelContext, 'workspace' | 'brief' | 'onChange' | 'onMessage'> & {
  /** Renders a patch as it is and one with it. */ onTry: (cost: Cost) => void;
};

interface Measured extends CostsSoFar {
  of: string;
  whole: boolean;
  /** Null before the first of this time. */
  secondsLeft: number | null;
}

const TRY_TITLE =
  'Renders two patches at full size, as it is and with this, where the picture changes most or where the patch on the ' +
  'stage lies. Comma and semicolon go from one to the other.';

export function Costs({ workspace, brief, onChange, onMessage, onTry }: Props) {
  const [measured, setMeasured] = useState<Measured | null>(null);
  const [busy, setBusy] = useState(false);
  const stop = useRef<AbortController | null>(null);
  const key = probeText(brief);
  // what was measured so far is saved, and the next measurement continues from there
  useEffect(() => () => stop.current?.abort(), []);
  const measure = async () => {
    stop.current = new AbortController();
    const { signal } = stop.current;
    setBusy(true);
    setMeasured((m) => (m?.of === key ? m : null));
    let first: { at: number; known: number } | null = null;
    const take = (so: CostsSoFar) => {
      first ??= { at: performance.now(), known: so.costs.length };
      const done = so.costs.length - first.known;
      const secondsLeft =
        done > 0 ? ((performance.now() - first.at) / 1000 / done) * (so.steps - so.costs.length) : null;
      setMeasured({ ...so, of: key, whole: false, secondsLeft });
    };
    const sent = await follow<Cost[], CostsSoFar>(
      `/api/projects/${workspace.project.id}/costs`,
      { brief },
      take,
      signal
    );
    setBusy(false);
    if (sent.ok) setMeasured({ costs: sent.value, steps: sent.value.length, of: key, whole: true, secondsLeft: null });
    onMessage(sent.ok || signal.aborted ? null : sent.message);
  };
  const said = measured ? worthSaying(measured.costs, brief) : [];
  const stale = measured !== null && measured.of !== key;
  return (
    <div className="sec">
      <div className="row">
        <span className="lab">What costs time here</span>
        {busy ? (
          <button type="button" className="lk act" onClick={() => stop.current?.abort()}>
            Stop
          </button>
        ) : (
          <button type="button" className="lk act" onClick={() => void measure()}>
            {measured === null ? 'Measure' : measured.whole || stale ? 'Measure again' : 'Go on measuring'}
          </button>
        )}
      </div>
      {busy ? <p className="note">{soFar(measured)}</p> : null}
      {measured === null && !busy ? (
        <p className="note">Measured on this picture, not a rule: of the time that its quality takes.</p>
      ) : null}
      {measured?.whole && said.length === 0 ? (
        <p className="say">Nothing that could be left out takes more than a few hundredths of the time.</p>
      ) : null}
      {said.map((cost) => (
        <p key={JSON.stringify(cost.saving)} className={`say${stale ? ' stale' : ''}`}>
          {costSentence(cost, brief)}{' '}
          {stale || busy ? null : (
            <span className="acts">
              <button type="button" className="lk act" title={TRY_TITLE} onClick={() => onTry(cost)}>
                Try it on a patch
              </button>
              <button type="button" className="lk act" onClick={() => onChange(takeSaving(cost.saving, brief))}>
                {savingAction(cost.saving)}
              </button>
            </span>
          )}
        </p>
      ))}
      {stale ? <p className="note">The picture has changed since.</p> : null}
    </div>
  );
}

/** How far it is, and how much longer it will take. */
function soFar(measured: Measured | null): string {
  const what = 'Little patches are rendered with one thing less at a time';
  if (!measured) return `${what}.`;
  const { costs, steps, secondsLeft } = measured;
  return `${what}: ${Math.min(costs.length + 1, steps)} of ${steps}${secondsLeft === null ? '' : `, about ${about(secondsLeft)} left`}.`;
}
