/** What weighs most in the model, and may be left out of quick looks. */
import { asideOf, type Brief } from '../../../core/brief/brief';
import { capital } from '../../../core/brief/amounts';
import type { WeightOfGroup } from '../../../core/scene/set-aside';

interface Props {
  brief: Brief;
  heaviest: readonly WeightOfGroup[];
  /** Of the whole model. */
  triangles: number;
  onSet: (aside: string[]) => void;
}

const SHOWN = 4;

export function SetAside({ brief, heaviest, triangles, onSet }: Props) {
  const { aside, step } = brief.quality;
  const is = (group: string) => aside.some((g) => g.toLowerCase() === group.toLowerCase());
  const listed = heaviest.filter((g, i) => i < SHOWN || is(g.group));
  if (listed.length < 2) return null;
  const quick = step === 'glance' || step === 'study';
  return (
    <div className="sec">
      <div className="row">
        <span className="lab">Set aside in Glance and Study</span>
        <span className="note">what weighs most</span>
      </div>
      {listed.map(({ group, triangles: own, count }) => (
        <div key={group} className="row" style={{ padding: '3px 0' }}>
          <span>
            {capital(group)} <span className="note">{count > 1 ? `${count.toLocaleString('en')} of them, ` : ''}{Math.round((100 * own) / triangles)} % of the triangles</span>
          </span>
          <button type="button" className="lk act" aria-pressed={is(group)} onClick={() => onSet(is(group) ? aside.filter((g) => g.toLowerCase() !== group.toLowerCase()) : [...aside, group])}>
            {is(group) ? 'left out' : 'there'}
          </button>
        </div>
      ))}
      {aside.length > 0 ? <p className="note">{quick && asideOf(brief).length > 0 ? 'The picture goes without them until it is to be shown.' : 'All of it is there: this quality is to be shown.'}</p> : null}
    </div>
  );
}
