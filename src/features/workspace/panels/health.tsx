/** What is wrong with the model: each finding with where it is, and its repair, which can be undone. */
import { useState } from 'react';
import { type Finding, isOfParts, isRepair, type Repair, tellFinding } from '../../../core/scene/health';
import { nameOfPath } from '../../../core/scene/part-paths';
import { ChooseFiles } from '../../shared/choose-files';
import { uploadAll } from '../../shared/send';
import { HEALTH_COPY as COPY } from '../copy';
import type { PanelContext } from '../view';
import { changeModel } from './change-model';
import { LookAt } from './look-at';

type Props = Pick<PanelContext, 'workspace' | 'picture' | 'onWorkspace' | 'onMessage'>;

const SHOWN = 3;

export function Health({ workspace, picture, onWorkspace, onMessage }: Props) {
  const { health } = workspace.revision.report;
  const [busy, setBusy] = useState<string | null>(null);
  if (!health) return null;

  const done = health.flatMap(({ kind, repaired }) => (repaired && isRepair(kind) ? [kind] : []));
  const waiting = health.flatMap(({ kind, repaired }) => (!repaired && isRepair(kind) ? [kind] : []));
  const ask = async (what: 'repairs' | 'files', body: object, says: string) => {
    setBusy(says);
    const now = await changeModel(workspace, picture, what, body);
    setBusy(null);
    onMessage(now.ok ? null : now.message);
    if (now.ok) onWorkspace(now.value);
  };
  const repair = (repairs: readonly Repair[]) => void ask('repairs', { repairs }, COPY.repairing);
  const add = async (files: File[]) => {
    const sent = await uploadAll(files, (share) => setBusy(COPY.sending(share)), new AbortController().signal);
    setBusy(null);
    if (!sent.ok) return onMessage(sent.message);
    await ask('files', { files: sent.value }, COPY.reading);
  };
  const actionOf = ({ kind, repaired }: Finding) =>
    isRepair(kind) ? (
      <button
        type="button"
        className="lk act"
        disabled={busy !== null}
        onClick={() => repair(repaired ? done.filter((other) => other !== kind) : [...done, kind])}
      >
        {repaired ? COPY.undo(COPY.repairs[kind].toLowerCase()) : COPY.repairs[kind]}
      </button>
    ) : kind === 'pictures' ? (
      <ChooseFiles
        label={COPY.chooseFiles}
        button={COPY.addFiles}
        disabled={busy !== null}
        onFiles={(files) => void add(files)}
      />
    ) : null;
  return (
    <section className="sec" aria-label={COPY.title}>
      <div className="row">
        <span className="lab">{COPY.title}</span>
        {busy !== null ? (
          <span role="status">{busy}</span>
        ) : waiting.length > 1 ? (
          <button type="button" className="lk act" onClick={() => repair([...done, ...waiting])}>
            {COPY.repairAll(waiting.length)}
          </button>
        ) : null}
      </div>
      {health.length === 0 ? <p className="note">{COPY.sound}</p> : null}
      {health.map((finding) => (
        <div key={finding.kind} className="finding">
          <p>{tellFinding(finding)}</p>
          <div className="row">
            <span className="note">
              {finding.where.slice(0, SHOWN).map((where, i) => (
                <span key={where}>
                  {i > 0 ? ', ' : ''}
                  {isOfParts(finding.kind) ? <LookAt path={where} /> : nameOfPath(where)}
                </span>
              ))}
              {finding.where.length > SHOWN ? COPY.andMore(finding.where.length - SHOWN) : ''}
            </span>
            {actionOf(finding)}
          </div>
        </div>
      ))}
    </section>
  );
}
