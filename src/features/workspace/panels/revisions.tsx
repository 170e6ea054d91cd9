/** A newer file of the model, what is other in it, and the way back to an earlier revision. */
import { useState } from 'react';
import type { WorkspaceDto } from '../../../contracts/dto';
import { type ComparedReport, RENAMED } from '../../../formats/model/import-report';
import { ChooseFiles } from '../../shared/choose-files';
import { send, type Sent, uploadAll } from '../../shared/send';
import { when } from '../../shared/when';
import { REVISION_COPY as COPY } from '../copy';
import type { PanelContext } from '../view';
import { LookAt } from './look-at';
import { WatchedFile } from './watched-file';

type Props = Pick<PanelContext, 'workspace' | 'picture' | 'onWorkspace' | 'onMessage'>;

export function Revisions({ workspace, picture, onWorkspace, onMessage }: Props) {
  const [busy, setBusy] = useState<string | null>(null);
  const { id } = workspace.project;
  const { compared } = workspace.revision.report;

  const ask = async (path: string, body: object): Promise<Sent<{ same: boolean }>> => {
    const made = await send<{ same: boolean }>('POST', `/api/projects/${id}/revisions${path}`, body);
    if (!made.ok || made.value.same) return made;
    const now = await send<WorkspaceDto>('GET', `/api/projects/${id}?picture=${picture.id}`);
    if (now.ok) onWorkspace(now.value);
    return now.ok ? made : now;
  };
  const end = (made: Sent<{ same: boolean }>) => {
    setBusy(null);
    onMessage(made.ok ? (made.value.same ? COPY.same : null) : made.message);
  };
  const bring = async (files: File[]) => {
    const signal = new AbortController().signal;
    const sent = await uploadAll(files, (share) => setBusy(COPY.sending(share)), signal);
    if (!sent.ok) return end(sent);
    setBusy(COPY.reading);
    end(await ask('', { files: sent.value }));
  };
  const restore = async (revision: string) => {
    setBusy(COPY.restoring);
    end(await ask(`/${revision}`, {}));
  };
  return (
    <div className="sec" style={{ marginTop: 12 }}>
      <span className="lab">{COPY.title}</span>
      {busy === null ? (
        <ChooseFiles label={COPY.choose} button={COPY.bring} onFiles={(files) => void bring(files)} />
      ) : (
        <span role="status">{busy}</span>
      )}
      <WatchedFile project={id} stamp={workspace.stamp} onMessage={onMessage} />
      {compared ? <Compared compared={compared} pictures={workspace.pictures} /> : null}
      {workspace.earlier.length > 0 ? (
        <ul className="revisions">
          {workspace.earlier.map(({ id: revision, number, source, created_at_ms }) => (
            <li key={revision}>
              <span>
                {COPY.revision(number, source)}, <time>{when(created_at_ms)}</time>
              </span>
              <button
                type="button"
                className="lk"
                aria-label={COPY.goBackTo(number)}
                disabled={busy !== null}
                onClick={() => void restore(revision)}
              >
                {COPY.goBack}
              </button>
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}

/** Of a renamed object both paths are told. */
const placeNow = (name: string) => name.split(RENAMED).at(-1)!;

function Compared({ compared, pictures }: { compared: ComparedReport; pictures: WorkspaceDto['pictures'] }) {
  const lists = (['added', 'removed', 'changed', 'moved', 'renamed'] as const).filter(
    (kind) => compared[kind].count > 0
  );
  if (lists.length === 0) return <p className="note">{COPY.alike(compared.with)}</p>;
  return (
    <>
      <p className="note">
        {COPY.compared(compared.with, compared.same)}{' '}
        {compared.pictures
          ? COPY.seenIn(pictures.filter((p) => compared.pictures!.includes(p.id)).map((p) => p.name))
          : ''}
      </p>
      {lists.map((kind) => {
        const { count, names } = compared[kind];
        return (
          <details key={kind} className="more">
            <summary>{COPY.kinds[kind](count)}</summary>
            <ul>
              {names.map((name, i) => (
                <li key={i}>{kind === 'removed' ? name : <LookAt path={placeNow(name)} label={name} />}</li>
              ))}
              {count > names.length ? <li>{COPY.more(count - names.length)}</li> : null}
            </ul>
          </details>
        );
      })}
    </>
  );
}
