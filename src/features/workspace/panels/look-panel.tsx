import type { Brief } from '../../../core/brief/brief';
import { Words } from '../../../ui/words';
import type { ChangeBrief } from '../use-brief';

export function LookPanel({ brief, onChange }: { brief: Brief; onChange: ChangeBrief }) {
  return (
    <>
      <Words
        label="Look"
        value={brief.look.kind}
        options={[
          { key: 'photographic', label: 'Photographic' },
          { key: 'clay', label: 'Clay' }
        ]}
        onChoose={(kind) => onChange({ look: { kind } })}
      />
      <p className="say sec" style={{ border: 0 }}>
        {brief.look.kind === 'clay' ? 'One neutral matte material lies over everything but window panes, so that the light alone can be judged.' : 'Every material is rendered as the model has it.'}
      </p>
    </>
  );
}
