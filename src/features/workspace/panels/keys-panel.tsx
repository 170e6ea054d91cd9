import { ThemeSwitch } from '../../../ui/theme-switch';
import { KEYS, KEYS_COPY } from '../copy';
import { useSingleKeys } from '../use-keys';

export function KeysPanel() {
  const [on, set] = useSingleKeys();
  return (
    <>
      <dl className="keys">
        {KEYS.map(([keys, what]) => (
          <div key={keys} style={{ display: 'contents' }}>
            <dt>{keys}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <div className="sec">
        <label className="row">
          <span>{KEYS_COPY.single}</span>
          <input type="checkbox" className="toggle toggle-sm" checked={on} onChange={(e) => set(e.target.checked)} />
        </label>
        <p className="say">{KEYS_COPY.why}</p>
      </div>
      <div className="sec">
        <span className="lab">{KEYS_COPY.appearance}</span>
        <ThemeSwitch />
      </div>
    </>
  );
}
