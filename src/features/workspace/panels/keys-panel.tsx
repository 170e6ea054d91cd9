import { KEYS } from '../copy';

export function KeysPanel() {
  return (
    <dl className="keys">
      {KEYS.map(([keys, what]) => (
        <div key={keys} style={{ display: 'contents' }}>
          <dt>{keys}</dt>
          <dd>{what}</dd>
        </div>
      ))}
    </dl>
  );
}
