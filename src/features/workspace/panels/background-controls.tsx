/** What is seen where nothing stands: the surroundings themselves, or an even grey. It never needs a new render. */
import type { Finish } from '../../../core/brief/brief';
import { PointerScale } from '../../../ui/pointer-scale';
import { Words } from '../../../ui/words';
import type { ChangeBrief } from '../use-brief';

const GREYS = [0, 20, 40, 60, 80, 100].map((value) => ({ value, strong: value % 100 === 0 }));
const PAPER = 96;

export function BackgroundControls({ finish, onChange }: { finish: Finish; onChange: ChangeBrief }) {
  const { background } = finish;
  const plain = background.kind === 'plain' ? background : null;
  const set = (next: Finish['background'], joins = false) => onChange({ finish: { ...finish, background: next } }, joins);
  return (
    <div className="sec">
      <span className="lab">Behind the model</span>
      <Words
        label="Behind the model"
        value={plain ? 'plain' : 'own'}
        options={[
          { key: 'own', label: 'The surroundings' },
          { key: 'plain', label: 'An even grey' }
        ]}
        onChoose={(kind) => set(kind === 'plain' ? { kind, lightness: PAPER } : { kind })}
      />
      {plain ? (
        <div className="ctl" style={{ marginTop: 8 }}>
          <span className="lab">Lightness</span>
          <PointerScale label="Lightness of the background" width={130} value={plain.lightness} min={0} max={100} step={1} ticks={GREYS} valueText={`L* ${plain.lightness}`} onChange={(lightness, joins) => set({ kind: 'plain', lightness }, joins)} />
          <span className="n v">L* {plain.lightness}</span>
        </div>
      ) : null}
    </div>
  );
}
