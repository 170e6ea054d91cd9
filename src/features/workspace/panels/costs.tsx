/** What costs time in this picture, measured on it: each with the step that would lessen it. */
import { useState } from 'react';
import { type Cost, costSentence, savingAction, takeSaving, worthSaying } from '../../../core/forecast/costs';
import { probeText } from '../../../core/forecast/probe-brief';
import { send } from '../../shared/send';
import type { ProjectPanelProps } from '../view';

type Props = Pick<ProjectPanelProps, 'workspace' | 'brief' | 'onChange' | 'onMessage'> & { /** Renders a patch as it is and one with it. */ onTry: (cost: Cost) => void };

export function Costs({ workspace, brief, onChange, onMessage, onTry }: Props) {
  const [measured, setMeasured] = useState<{ of: string; costs: Cost[] } | null>(null);
  const [busy, setBusy] = useState(false);
  const key = probeText(brief);
  const measure = async () => {
    setBusy(true);
    const sent = await send<Cost[]>('POST', `/api/projects/${workspace.project.id}/costs`, { brief });
    setBusy(false);
    if (!sent.ok) return onMessage(sent.message);
    onMessage(null);
    setMeasured({ of: key, costs: sent.value });
  };
  const said = measured ? worthSaying(measured.costs) : [];
  const stale = measured !== null && measured.of !== key;
  return (
    <div className="sec">
      <div className="row">
        <span className="lab">What costs time here</span>
        <button type="button" className="lk act" aria-disabled={busy} onClick={() => !busy && void measure()}>
          {busy ? 'Measuring' : measured ? 'Measure again' : 'Measure'}
        </button>
      </div>
      {measured === null ? <p className="note">{busy ? 'Little patches are rendered with one thing less at a time: a minute or so.' : 'Measured on this picture, not a rule.'}</p> : null}
      {measured && said.length === 0 ? <p className="say">Nothing that could be left out takes more than a few hundredths of the time.</p> : null}
      {said.map((cost) => (
        <p key={JSON.stringify(cost.saving)} className={`say${stale ? ' stale' : ''}`}>
          {costSentence(cost, brief)}{' '}
          {stale ? null : (
            <span className="acts">
              <button type="button" className="lk act" title="Two patches at full size, as it is and with this, where the picture changes most or where the patch on the stage lies; comma and semicolon go from one to the other" onClick={() => onTry(cost)}>
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
