'use client';
/** The desk: every project as its lead picture on the mat, what renders, what is storage. */
import { useRef, useState } from 'react';
import type { DeskDto } from '../../contracts/dto';
import { DESK_PAGE } from '../../contracts/paging';
import { useAlive } from '../../ui/early-presses';
import { Mark } from '../../ui/mark';
import type { Removed } from '../../core/catalogue/removable';
import { bringBack, EDIT_COPY, EditItem } from '../shared/edit-item';
import { ThemeSwitch } from '../../ui/theme-switch';
import { RenderSlip } from '../../ui/render-slip';
import { bytes, send } from '../shared/send';
import { Ticket } from '../shared/ticket';
import { when } from '../shared/when';
import { useChanges } from '../shared/use-changes';
import { COPY, deskSentence, runningPhrase } from './copy';
import { MiniSheet } from './mini-sheet';
import { NewProject } from './new-project';

export function Desk({ initial }: { initial: DeskDto }) {
  useAlive();
  const [desk, setDesk] = useState(initial);
  const [message, setMessage] = useState<string | null>(null);
  const duplicate = async (id: string) => {
    const sent = await send('POST', `/api/projects/${id}/copy`);
    setMessage(sent.ok ? null : sent.message);
  };
  const undo = async (removed: Removed) => {
    const sent = await bringBack(removed);
    setMessage(sent.ok ? null : sent.message);
    if (sent.ok) setDesk((now) => ({ ...now, removed: now.removed.filter((r) => r.id !== removed.id) }));
  };
  const chooser = useRef<HTMLInputElement>(null);
  const [limit, setLimit] = useState(desk.projects.length);
  const address = (projects: number) => `/api/desk?projects=${Math.max(projects, DESK_PAGE)}`;
  useChanges<DeskDto>('desk', () => address(limit), desk.stamp, setDesk);
  const older = desk.count - desk.projects.length;
  const showOlder = async () => {
    const next = desk.projects.length + DESK_PAGE;
    setLimit(next);
    const sent = await send<DeskDto>('GET', address(next));
    if (sent.ok) setDesk(sent.value);
  };
  const { running, storage } = desk;
  const used = storage.films_bytes + storage.models_bytes + storage.packs_bytes;
  const share = used / Math.max(1, used + storage.free_bytes);
  return (
    <main className="desk">
      <a className="skip" href="#projects">
        {COPY.skip}
      </a>
      <h1 className="vh">{COPY.heading}</h1>
      <Mark client={desk.client} />
      <div className="brief">
        <p>
          {deskSentence(desk)}
          {running ? (
            <>
              <a className="w" href={`/p/${running.project}?picture=${running.pictureId}`}>
                {running.picture}
              </a>
              {runningPhrase(desk)}
            </>
          ) : null}{' '}
          <RenderSlip label="Bring in a model" onPress={() => chooser.current?.click()} />
        </p>
        {message ? (
          <p className="err" role="alert">
            {message[0]!.toUpperCase() + message.slice(1)}.
          </p>
        ) : null}
      </div>
      <section className="top" aria-label="Projects" id="projects" tabIndex={-1}>
        <ul>
          {desk.projects.map((project) => (
            <li key={project.id}>
              <a href={`/p/${project.id}`} className="pj">
                <span className="hold">
                  <MiniSheet project={project} />
                </span>
                <b className="ttl">{project.name}</b>
                <span className="d1">
                  {project.kind ? `${project.kind}. ` : ''}
                  {project.pictures} picture{project.pictures === 1 ? '' : 's'}, model revision {project.revision}
                </span>
                <span className="d2">
                  {project.running ? (
                    <span className="livec">Rendering, {Math.floor(project.running.share * 100)}&nbsp;%</span>
                  ) : project.last_proof ? (
                    `Last proof ${when(project.last_proof.ended_at_ms)}, ${project.last_proof.quality}`
                  ) : (
                    'No proof yet'
                  )}
                </span>
              </a>
              <EditItem
                kind="project"
                id={project.id}
                name={project.name}
                onRenamed={() => {}}
                onRemoved={() => {}}
                onDuplicate={() => void duplicate(project.id)}
                onMessage={setMessage}
              />
            </li>
          ))}
          {older > 0 ? (
            <li>
              <button type="button" className="lk" onClick={() => void showOlder()}>
                {COPY.more(older)}
              </button>
            </li>
          ) : null}
          <li>
            <NewProject input={chooser} formats={desk.formats} />
          </li>
        </ul>
      </section>
      <section className="band two">
        <div>
          <h2>Rendering</h2>
          {running ? (
            <ol className="tks">
              <Ticket
                proof={running}
                chosen={false}
                onChoose={() => location.assign(`/p/${running.project}?picture=${running.pictureId}`)}
                onStop={() => void send('POST', `/api/proofs/${running.id}/stop`, { how: 'stop' })}
              />
            </ol>
          ) : (
            <p className="say">Queue empty. Open a project and render a picture.</p>
          )}
          {running && desk.waiting > 0 ? <p className="note after">{desk.waiting} more after it.</p> : null}
        </div>
        <div>
          <h2>Storage</h2>
          <dl className="kept">
            <dt>Renders ({storage.films} proofs)</dt>
            <dd className="n">{bytes(storage.films_bytes)}</dd>
            <dt>Models, {desk.count} revisions</dt>
            <dd className="n">{bytes(storage.models_bytes)}</dd>
            <dt>Cached scenes</dt>
            <dd className="n">{bytes(storage.packs_bytes)}</dd>
          </dl>
          <svg className="room" viewBox="0 0 272 10" aria-hidden="true">
            <rect x=".5" y=".5" width="271" height="8" />
            <path d={`M.5 .5h${Math.max(1, 271 * share).toFixed(1)}v8H.5z`} />
          </svg>
          <p className="note n">
            {bytes(used)} used, {bytes(storage.free_bytes)} free
          </p>
          <ThemeSwitch />
          {desk.removed.length > 0 ? (
            <>
              <h3>{COPY.removed}</h3>
              <ul className="kept">
                {desk.removed.map((removed) => (
                  <li key={removed.kind + removed.id}>
                    {removed.name}{' '}
                    <button
                      type="button"
                      className="lk"
                      aria-label={COPY.bringBack(removed.name)}
                      onClick={() => void undo(removed)}
                    >
                      {EDIT_COPY.undo}
                    </button>
                  </li>
                ))}
              </ul>
            </>
          ) : null}
        </div>
      </section>
    </main>
  );
}
