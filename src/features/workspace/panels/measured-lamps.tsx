/**
 * What each group of lamps brings to the picture, measured by a small render; those that bring nothing can be left out.
 */
import { useState } from 'react';
import type { MeasuredLampDto } from '../../../contracts/dto';
import { capital, NBSP } from '../../../core/brief/amounts';
import { canonicalJson } from '../../../core/brief/brief';
import { aspectOf } from '../../../core/output/fit-frame';
import { isAmong } from '../../../core/scene/lamp-groups';
import { send } from '../../shared/send';
import type { PanelContext } from '../view';

type Props = Pick<PanelContext, 'workspace' | 'brief' | 'onMessage'> & {
  groups: readonly string[];
  onLeaveOut: (group: string) => void;
};

const percent = (share: number) =>
  `${share < 0.001 ? 'under 0.1' : share < 0.1 ? (100 * share).toFixed(1) : Math.round(100 * share)}${NBSP}%`;

export function MeasuredLamps({ workspace, brief, groups, onMessage, onLeaveOut }: Props) {
  const [measured, setMeasured] = useState<{ of: string; lamps: MeasuredLampDto[] } | null>(null);
  const [busy, setBusy] = useState(false);
  const { viewpoint, surroundings, lamps, look, ground, size } = brief;
  const key = canonicalJson({ viewpoint, surroundings, lamps, look, ground, aspect: aspectOf(size) });
  const measure = async () => {
    setBusy(true);
    const sent = await send<MeasuredLampDto[]>('POST', `/api/projects/${workspace.project.id}/lamps`, { brief });
    setBusy(false);
    if (!sent.ok) return onMessage(sent.message);
    onMessage(null);
    setMeasured({ of: key, lamps: sent.value });
  };
  const stale = measured !== null && measured.of !== key;
  const known = (group: string) => isAmong(groups, group);
  return (
    <div className="sec">
      <div className="row">
        <span className="lab">Contribution of each lamp</span>
        <button type="button" className="lk act" aria-disabled={busy} onClick={() => !busy && void measure()}>
          {busy ? 'Measuring' : measured ? 'Measure again' : 'Measure'}
        </button>
      </div>
      {measured ? (
        <>
          <dl className={`rows measured${stale ? ' stale' : ''}`}>
            {measured.lamps.map(({ group, share, most }) => (
              <span key={group} style={{ display: 'contents' }}>
                <dt>{capital(group)}</dt>
                <dd className="n" title={`At most ${percent(most)} of the light of any place`}>
                  {percent(share)}
                </dd>
              </span>
            ))}
          </dl>
          {stale ? <p className="note">The light or the view has changed since.</p> : null}
          {measured.lamps
            .filter((l) => l.time !== null && known(l.group) && !stale)
            .map(({ group, share, time }) => (
              <p key={group} className="say">
                {capital(group)} adds {percent(share)} light
                {time! >= 0.01 ? ` and takes ${percent(time!)} of the time` : ''}.{' '}
                <button type="button" className="lk act" onClick={() => onLeaveOut(group)}>
                  Leave it out
                </button>
              </p>
            ))}
        </>
      ) : (
        <p className="note">A small render tells lamps apart, and finds those whose light never reaches the picture.</p>
      )}
    </div>
  );
}
