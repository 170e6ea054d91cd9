/** Parts of briefs that the user saved under names: to use again and to remove, and a field that saves the current one. */
import type { KeptDto } from '../../../contracts/dto';
import { standsAt, takePart } from '../../../core/brief/kept-part';
import { KeepForm } from '../../../ui/keep-form';
import { send } from '../../shared/send';
import type { PanelContext } from '../view';

type Props = Pick<PanelContext, 'workspace' | 'brief' | 'onChange' | 'onMessage' | 'onWorkspace'> & {
  kind: KeptDto['kind'];
  title: string /** For the field. */;
  asks: string;
};

export function KeptList({ workspace, brief, kind, title, asks, onChange, onMessage, onWorkspace }: Props) {
  const kept = workspace.kept.filter((k) => k.kind === kind);
  const keep = async (name: string) => {
    const sent = await send<KeptDto>('POST', `/api/projects/${workspace.project.id}/kept`, { kind, name, brief });
    if (sent.ok) onWorkspace((w) => ({ ...w, kept: [...w.kept, sent.value] }));
    else onMessage(sent.message);
    return sent.ok;
  };
  const drop = async (id: string) => {
    const sent = await send<null>('DELETE', `/api/kept/${id}`);
    if (!sent.ok) return onMessage(sent.message);
    onWorkspace((w) => ({ ...w, kept: w.kept.filter((k) => k.id !== id) }));
  };
  return (
    <div style={{ marginTop: 10 }}>
      <span className="lab">{title}</span>
      {kept.map((k) => (
        <div key={k.id} className="row">
          <div className="list" style={{ flex: 1, marginRight: 0 }}>
            <button
              type="button"
              aria-pressed={standsAt(k.part, brief, kind)}
              onClick={() => onChange(takePart(k.part, brief))}
            >
              {kind === 'surroundings' ? (
                <img src={`/api/kept/${k.id}/preview`} alt="" width="72" height="41" loading="lazy" />
              ) : null}
              {k.name}
            </button>
          </div>
          <button type="button" className="lk act" aria-label={`Remove ${k.name}`} onClick={() => void drop(k.id)}>
            Remove
          </button>
        </div>
      ))}
      <KeepForm label={asks} placeholder={asks} onKeep={keep} />
    </div>
  );
}
