/** Parts of briefs that the user saved under names: to use again and to remove, and a field that saves the current one. */
import type { KeptDto } from '../../../contracts/dto';
import { standsAt, takePart } from '../../../core/brief/kept-part';
import { KeepForm } from '../../../ui/keep-form';
import { send } from '../../shared/send';
import type { PanelContext } from '../view';
import { ItemRow } from './item-row';

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
  return (
    <div style={{ marginTop: 10 }}>
      <span className="lab">{title}</span>
      {kept.map((k) => (
        <ItemRow key={k.id} kind="part" id={k.id} name={k.name} onWorkspace={onWorkspace} onMessage={onMessage}>
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
        </ItemRow>
      ))}
      <KeepForm label={asks} placeholder={asks} onKeep={keep} />
    </div>
  );
}
