/** What weighs most in the model, and may be left out of quick looks or stand there as a slim copy. */
import { type Brief, type BriefQuality, setAsideOf } from '../../../core/brief/brief';
import { capital, NBSP } from '../../../core/brief/amounts';
import { isAmong, sameGroup } from '../../../core/scene/lamp-groups';
import type { WeightOfGroup } from '../../../core/scene/set-aside';
import { Words } from '../../../ui/words';

interface Props {
  brief: Brief;
  heaviest: readonly WeightOfGroup[];
  /** Of the whole model. */
  triangles: number;
  onSet: (less: Partial<Pick<BriefQuality, 'aside' | 'slim' | 'plain'>>) => void;
}

const SHOWN = 4;
const WAYS = [
  { key: 'whole', label: 'whole' },
  { key: 'slim', label: 'simplified' },
  { key: 'out', label: 'left out' }
] as const;
type Way = (typeof WAYS)[number]['key'];

export function SetAside({ brief, heaviest, triangles, onSet }: Props) {
  const { aside, slim, plain } = brief.quality;
  const without = (groups: readonly string[], group: string) => groups.filter((g) => !sameGroup(g, group));
  const wayOf = (group: string): Way => (isAmong(aside, group) ? 'out' : isAmong(slim, group) ? 'slim' : 'whole');
  const set = (group: string, way: Way) =>
    onSet({
      aside: [...without(aside, group), ...(way === 'out' ? [group] : [])],
      slim: [...without(slim, group), ...(way === 'slim' ? [group] : [])]
    });
  const listed = heaviest.filter((g, i) => i < SHOWN || wayOf(g.group) !== 'whole');
  if (listed.length < 2 && plain.length === 0) return null;
  const share = (part: number) =>
    `${part < triangles / 100 ? 'under 1' : Math.round((100 * part) / triangles)}${NBSP}%`;
  const less = Object.keys(setAsideOf(brief)).length > 0;
  return (
    <div className="sec">
      <div className="row">
        <span className="lab">In Glance and Study</span>
        <span className="note">heaviest parts</span>
      </div>
      {listed.map(({ group, triangles: own, count, slim: thin }) => (
        <div key={group} style={{ padding: '5px 0' }}>
          <div className="row">
            <span>{capital(group)}</span>
            <Words
              label={`${capital(group)} in quick looks`}
              value={wayOf(group)}
              options={WAYS.filter(
                ({ key }) => key !== 'slim' || (thin !== undefined && thin < own) || wayOf(group) === 'slim'
              )}
              onChoose={(way) => set(group, way)}
            />
          </div>
          <p
            className="note"
            title={`${own.toLocaleString('en')} triangles${thin === undefined ? '' : `; simplified ${thin.toLocaleString('en')}`}`}
          >
            {count > 1 ? `${count.toLocaleString('en')} of them, ` : ''}
            {share(own)} of the triangles{thin !== undefined && thin < own ? `; simplified ${share(thin)}` : ''}
          </p>
        </div>
      ))}
      {plain.map((name) => (
        <div key={name} className="row" style={{ padding: '5px 0' }}>
          <span>
            {capital(name)} <span className="note">plain</span>
          </span>
          <button type="button" className="lk act" onClick={() => onSet({ plain: plain.filter((p) => p !== name) })}>
            As it is
          </button>
        </div>
      ))}
      {aside.length + slim.length + plain.length > 0 ? (
        <p className="note">
          {less
            ? 'They are whole again when the picture is to be shown.'
            : 'All of it is whole: this quality is to be shown.'}
        </p>
      ) : null}
    </div>
  );
}
