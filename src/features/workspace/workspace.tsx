'use client';
/**
 * The workspace: brief line, pictures, stage, proofs, one open panel. Holds the state that they share; every change is
 * saved at once.
 */
import { useEffect, useMemo, useState } from 'react';
import type { PictureDto, ProofDto, WorkspaceChangesDto, WorkspaceDto } from '../../contracts/dto';
import { type Brief, canonicalJson, developKey, filmBrief, type Patch } from '../../core/brief/brief';
import { about, composeSentence, countChanges, sizeLabel } from '../../core/brief/sentence';
import { takeOffer } from '../../core/forecast/deadline';
import { forecastOf } from '../../core/forecast/forecast-of';
import { type Cost, type Saving, triedWith, TRY_PX } from '../../core/forecast/costs';
import { skyLights } from '../../core/lights/sky/sky-lights';
import { resolveSize, squareAbout } from '../../core/output/size';
import { lampGroup } from '../../core/scene/lamp-groups';
import { settingOf } from '../../core/scene/dim-lamps';
import { QUALITY_STEPS } from '../../core/catalogue/quality';
import { useAlive } from '../../ui/early-presses';
import { Mark } from '../../ui/mark';
import { send } from '../shared/send';
import { Ticket } from '../shared/ticket';
import { useChanges } from '../shared/use-changes';
import { BriefLine } from './brief-line';
import { Pictures } from './pictures';
import { KeysPanel } from './panels/keys-panel';
import { LampsPanel } from './panels/lamps-panel';
import { LookPanel } from './panels/look-panel';
import { ModelPanel } from './panels/model-panel';
import { Panel } from './panels/panel';
import { QualityPanel } from './panels/quality-panel';
import { StagePanel } from './panels/stage-panel';
import type { SheetUnit } from './panels/size-fields';
import { type FrameBefore, SizePanel } from './panels/size-panel';
import { SurroundingsPanel } from './panels/surroundings-panel';
import { ViewpointPanel } from './panels/viewpoint-panel';
import { Stage, type Zoom } from './stage';
import { type ChangeBrief, useBrief } from './use-brief';
import { useStageView } from './use-stage-view';
import { freeView, type LampMark, lampsOf, type OpenPanel, type Picking, placesOf } from './view';
import { useForecast, useGrainSoFar } from './use-forecast';
import { useKeys } from './use-keys';

/** Parts of the brief that the live view shows. */
const LIVE_WORDS = ['viewpoint', 'surroundings', 'ground', 'lamps', 'look', 'exposure'] as const;

/** What arrives later was not always said later: an answer can overtake an event. */
const newerOf = (kept: PictureDto | undefined, arrived: PictureDto) =>
  kept && kept.changes > arrived.changes ? kept : arrived;

/** The state after what changed; what was gone on with here meanwhile stays. */
function withChanges(workspace: WorkspaceDto, changes: WorkspaceChangesDto): WorkspaceDto {
  const { stamp, machine, rendering } = changes;
  const changed = new Map(changes.proofs.map((proof) => [proof.id, proof]));
  const removed = new Set(changes.removed);
  const proofs = workspace.proofs.filter((p) => !removed.has(p.id)).map((p) => changed.get(p.id) ?? p);
  const known = new Set(proofs.map((p) => p.id));
  const pictures = new Map(changes.pictures.map((picture) => [picture.id, picture]));
  const there = new Set(workspace.pictures.map((p) => p.id));
  return {
    ...workspace,
    stamp,
    machine,
    rendering,
    proofs: [...changes.proofs.filter((p) => !known.has(p.id)), ...proofs],
    pictures: [
      ...workspace.pictures.map((p) => (pictures.has(p.id) ? newerOf(p, pictures.get(p.id)!) : p)),
      ...changes.pictures.filter((p) => !there.has(p.id))
    ]
  };
}

/** What decides a brief's film, as text; kept a brief, for it is asked for at every change of every proof. */
const filmTexts = new WeakMap<Brief, string>();
function filmText(brief: Brief): string {
  const known = filmTexts.get(brief) ?? canonicalJson(filmBrief(brief));
  filmTexts.set(brief, known);
  return known;
}

export function Workspace({ initial, pictureId }: { initial: WorkspaceDto; pictureId: string | null }) {
  const [workspace, setWorkspace] = useState(initial);
  const [chosen, setChosen] = useState(
    initial.pictures.some((p) => p.id === pictureId) ? pictureId! : initial.pictures[0]!.id
  );
  const [panel, setPanel] = useState<OpenPanel>(null);
  const [shownId, setShownId] = useState<string | null>(null);
  const [showModel, setShowModel] = useState(false);
  const [rawWanted, setRawWanted] = useState(false);
  const [zoom, setZoom] = useState<Zoom>('whole');
  const [unit, setUnit] = useState<SheetUnit>('mm');
  const [frameBefore, setFrameBefore] = useState<FrameBefore | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const [previewEv, setPreviewEv] = useState<number | null>(null);
  const [picking, setPicking] = useState<Picking | null>(null);
  const [lampInHand, setLampInHand] = useState<string | null>(null);
  const [gathering, setGathering] = useState<string[] | null>(null);

  const picture = workspace.pictures.find((p) => p.id === chosen) ?? workspace.pictures[0]!;
  const proofs = workspace.proofs.filter((p) => p.pictureId === picture.id);
  const shown = proofs.find((p) => p.id === shownId) ?? proofs.find((p) => p.picture_count > 0) ?? null;

  const asRendered = rawWanted && shown !== null && shown.denoise_share === 1;

  const replacePicture = (next: PictureDto) =>
    setWorkspace((w) => ({ ...w, pictures: w.pictures.map((p) => (p.id === next.id ? newerOf(p, next) : p)) }));
  const { brief, change: save, history: goBack } = useBrief(picture, replacePicture, setMessage);
  const [stageView, setStageView] = useStageView();
  // what changes the view or the light is judged in the live view
  const change: ChangeBrief = (part, joins) => {
    save(part, joins);
    if (
      stageView.preview &&
      (LIVE_WORDS.some((word) => word in part) ||
        (part.finish &&
          (part.finish.white !== brief.finish.white || part.finish.background !== brief.finish.background)))
    )
      setShowModel(true);
  };
  const history = (by: -1 | 1) => {
    goBack(by);
    if (stageView.preview && shown) setShowModel(true);
  };
  useChanges<WorkspaceChangesDto>(
    `/api/projects/${workspace.project.id}/events`,
    (since) => `/api/projects/${workspace.project.id}/changes?since=${since}`,
    initial.stamp,
    (changes) => setWorkspace((w) => withChanges(w, changes))
  );

  const view = freeView(brief, workspace);
  const sun = useMemo(() => {
    if (brief.surroundings.kind !== 'sky') return null;
    const { elevation, direction } = skyLights(brief.surroundings).sun;
    return elevation > 0 ? direction : null;
  }, [brief.surroundings]);

  const film = useMemo(() => filmText(brief), [brief]);
  const ofThisFilm = proofs.filter(
    (p) =>
      (p.state === 'done' || p.state === 'running' || p.state === 'waiting') &&
      p.current &&
      p.revision === workspace.revision.number &&
      filmText(p.brief) === film
  );
  const twin =
    ofThisFilm.find((p) => p.state !== 'done' || developKey(p.brief.finish) === developKey(brief.finish)) ?? null;
  const running = proofs.find((p) => p.state === 'running') ?? null;
  const forecast = useForecast(workspace.project.id, brief, workspace.machine, workspace.rendering !== null);
  const glance = forecast.of(forecastOf(takeOffer(brief, { step: 'glance', scale: QUALITY_STEPS.glance.scale })));
  const soFar = useGrainSoFar(running);
  const nameOfCaptured = (file: string) => workspace.captured.find((c) => c.sha256 === file)?.name ?? 'no image yet';
  const lamps = lampsOf(workspace.revision.report, brief.lamps);
  // a patch is of the full size, whatever share of it the brief asks for
  const was =
    shown &&
    (shown.brief.patch
      ? { ...shown.brief, quality: { ...shown.brief.quality, scale: brief.quality.scale } }
      : shown.brief);
  const sentence = composeSentence(brief, {
    name: picture.name,
    shown: was,
    nameOfCaptured,
    focalMm: view.focal_length_mm,
    parallel: view.projection === 'parallel',
    lampGroups: lamps.filter((l) => settingOf(brief.lamps, l.group, l.hidden).on || !l.hidden).map((l) => l.group)
  });

  const render = async (patch: Patch | null = null, saving: Saving | null = null) => {
    const sent = await send<ProofDto>('POST', `/api/pictures/${picture.id}/proofs`, { patch, saving });
    if (!sent.ok) return setMessage(sent.message);
    setMessage(null);
    setShownId(sent.value.id);
    setShowModel(false);
    setWorkspace((w) => ({
      ...w,
      proofs: w.proofs.some((p) => p.id === sent.value.id) ? w.proofs : [sent.value, ...w.proofs]
    }));
  };
  /**
   * A patch as it is and one with something less, where the one on the stage lies or where the difference is greatest;
   * the second is shown.
   */
  const tryLess = async ({ saving, at }: Cost) => {
    const patch = shown?.brief.patch ?? squareAbout(at, TRY_PX, resolveSize(brief.size));
    await render(patch);
    await render(patch, saving);
  };
  const stop = (proof: ProofDto, how: 'keep' | 'drop' | 'go on') =>
    void send('POST', `/api/proofs/${proof.id}/stop`, { how }).then((r) => !r.ok && setMessage(r.message));
  const choosePicture = (id: string) => {
    setChosen(id);
    setShownId(null);
    setShowModel(false);
    window.history.replaceState(null, '', `?picture=${id}`);
  };
  const addPicture = async () => {
    const sent = await send<PictureDto>('POST', `/api/pictures/${picture.id}/copy`);
    if (!sent.ok) return setMessage(sent.message);
    setWorkspace((w) => ({ ...w, pictures: [...w.pictures, sent.value] }));
    choosePicture(sent.value.id);
  };
  const step = <T extends { id: string }>(list: T[], id: string | null, by: number) =>
    list[Math.min(list.length - 1, Math.max(0, list.findIndex((x) => x.id === id) + by))];

  // a question to the stage belongs to the panel that asked it, but for a patch, which the stage asks itself
  const asked = panel === 'surroundings' || panel === 'lamps' || picking?.asks === 'patch' ? picking : null;
  const drawPatch = () => {
    if (picking?.asks === 'patch') return setPicking(null);
    setPicking({
      asks: 'patch',
      says: 'Draw a rectangle; it is rendered alone, at full size.',
      onRect: (rect) => {
        setPicking(null);
        void render(rect);
      }
    });
  };

  useKeys({
    word: (number) => {
      const panels = [...new Set(sentence.flatMap((part) => ('panel' in part ? [part.panel] : [])))];
      if (panels[number - 1]) setPanel(panels[number - 1]!);
    },
    panel: (key) => setPanel(key),
    render: () => void (!twin && render()),
    stop: () => {
      if (running) stop(running, 'keep');
    },
    picture: (by) => choosePicture(step(workspace.pictures, picture.id, by)!.id),
    proof: (by) => setShownId(step(proofs, shown?.id ?? null, by)?.id ?? null),
    zoom: setZoom,
    model: () => setShowModel((m) => !m),
    patch: drawPatch,
    history
  });
  useEffect(() => {
    document.title = `${picture.name}: Sphaera`;
  }, [picture.name]);
  useAlive();

  const close = () => setPanel(null);
  useEffect(() => {
    setPicking(null);
    setGathering(null);
    setFrameBefore(null);
  }, [panel, picture.id]);
  const marks: LampMark[] =
    panel !== 'lamps'
      ? []
      : gathering
        ? placesOf(workspace.revision.report).map(({ name, at_m }) => ({
            name,
            at: at_m,
            towards: null,
            chosen: gathering.includes(name)
          }))
        : brief.lamps.added.map((l) => ({
            name: l.name,
            at: l.position_m,
            towards: l.form === 'point' && l.photometry === null ? null : l.direction,
            chosen: lampGroup(l.name) === lampInHand
          }));
  const pressMark = (index: number) => {
    const { name } = marks[index]!;
    if (gathering) setGathering(gathering.includes(name) ? gathering.filter((n) => n !== name) : [...gathering, name]);
    else setLampInHand(lampGroup(name));
  };
  return (
    <main className={`frame${panel ? '' : ' shut'}`}>
      <Mark client={workspace.project.name} />
      <BriefLine
        sentence={sentence}
        open={panel}
        onOpen={(key) => setPanel(panel === key ? null : key)}
        forecast={forecast.now}
        twin={twin}
        film={twin ? null : (ofThisFilm[0] ?? null)}
        message={message}
        onDismiss={() => setMessage(null)}
        onRender={() => void render()}
      />
      <Pictures
        workspace={workspace}
        current={picture}
        onChoose={choosePicture}
        onAdd={() => void addPicture()}
        modelOpen={panel === 'model'}
        onModel={() => setPanel(panel === 'model' ? null : 'model')}
      />
      <Stage
        project={workspace.project.id}
        model={workspace.revision.glb_sha256}
        brief={brief}
        inches={unit === 'in'}
        frameBefore={panel === 'size' ? (frameBefore?.aspect ?? null) : null}
        view={view}
        sun={sun}
        name={picture.name}
        proof={shown}
        under={shown?.brief.patch ? (proofs.find((p) => p.picture_count > 0 && p.brief.patch === null) ?? null) : null}
        changes={was ? countChanges(brief, was) : 0}
        tried={was?.patch ? triedWith(was, brief) : null}
        showModel={showModel || !shown || shown.picture_count === 0}
        asRendered={asRendered}
        zoom={zoom}
        stageView={stageView}
        rendering={workspace.rendering}
        picking={asked}
        marks={marks}
        onMark={pressMark}
        onReading={setPreviewEv}
        stageOpen={panel === 'stage'}
        onStage={() => setPanel(panel === 'stage' ? null : 'stage')}
        onShow={setShowModel}
        patchAsked={asked?.asks === 'patch'}
        onPatch={drawPatch}
        onAsRendered={() => setRawWanted(!rawWanted)}
        onZoom={setZoom}
        onMoved={(viewpoint, joins) => change({ viewpoint }, joins)}
      />
      <section className="strip" aria-label="Proofs">
        <header>
          <span>
            {proofs.length === 0
              ? 'No proof of this picture yet'
              : `${proofs.length} proof${proofs.length === 1 ? '' : 's'}, newest first`}
          </span>
          <span>
            <button type="button" className="lk" aria-disabled={!picture.canUndo} onClick={() => history(-1)}>
              Undo
            </button>
            <button type="button" className="lk" aria-disabled={!picture.canRedo} onClick={() => history(1)}>
              Redo
            </button>
            {shown && shown.picture_count > 0 ? (
              <>
                <span>
                  Download proof {shown.number}
                  {asRendered ? ', as rendered' : ''}:
                </span>
                {(
                  [
                    ['PNG', 'kind=png'],
                    ['PNG, clear', 'kind=png&background=clear'],
                    ['JPEG', 'kind=jpg'],
                    ['EXR', 'kind=exr'],
                    ...('ppi' in shown.brief.size && shown.brief.patch === null
                      ? [['PNG, crop marks', 'kind=png&marks'] as const]
                      : [])
                  ] as const
                ).map(([label, query]) => (
                  <a
                    key={label}
                    className="lk"
                    aria-current={query === `kind=${brief.seen.file}` ? 'true' : undefined}
                    download
                    href={`/api/proofs/${shown.id}/file?${query}${asRendered ? '&raw' : ''}`}
                  >
                    {label}
                  </a>
                ))}
              </>
            ) : null}
          </span>
        </header>
        {proofs.length === 0 ? (
          <p className="say">
            The stage shows the model; a Glance tells the light{glance ? ` in about ${about(glance.seconds)}` : ''}.
          </p>
        ) : (
          <ol className="tks">
            {proofs.map((proof) => (
              <Ticket
                key={proof.id}
                proof={proof}
                chosen={proof.id === shown?.id}
                onChoose={() => {
                  setShownId(proof.id);
                  setShowModel(false);
                }}
                onStop={(how) => stop(proof, how)}
                onGoOn={() => stop(proof, 'go on')}
              />
            ))}
          </ol>
        )}
        {shown?.denoise_note ? (
          <p className="say">
            {shown.denoise_share === 1 ? 'Denoised ' : 'Not denoised: '}
            {shown.denoise_note}.
          </p>
        ) : null}
        {shown?.state === 'failed' && shown.error ? <p className="say">{shown.error}</p> : null}
      </section>
      {panel === 'viewpoint' ? (
        <Panel title="Viewpoint" onClose={close}>
          <ViewpointPanel
            workspace={workspace}
            picture={picture}
            brief={brief}
            was={was}
            view={view}
            onChange={change}
            onMessage={setMessage}
            onWorkspace={setWorkspace}
            onPicture={replacePicture}
          />
        </Panel>
      ) : panel === 'surroundings' ? (
        <Panel title="Surroundings" onClose={close}>
          <SurroundingsPanel
            workspace={workspace}
            brief={brief}
            was={was}
            view={view}
            reading={previewEv ?? shown?.ev100 ?? null}
            picking={asked}
            onPicking={setPicking}
            onChange={change}
            onMessage={setMessage}
            onWorkspace={setWorkspace}
          />
        </Panel>
      ) : panel === 'lamps' ? (
        <Panel title="Lamps" onClose={close}>
          <LampsPanel
            workspace={workspace}
            brief={brief}
            was={was}
            view={view}
            lamps={lamps}
            inHand={lampInHand}
            onTake={setLampInHand}
            gathering={gathering}
            onGathering={setGathering}
            picking={asked}
            onPicking={setPicking}
            onChange={change}
            onMessage={setMessage}
            onWorkspace={setWorkspace}
          />
        </Panel>
      ) : panel === 'look' ? (
        <Panel title="Look" onClose={close}>
          <LookPanel brief={brief} was={was} materials={workspace.revision.report.materials} onChange={change} />
        </Panel>
      ) : panel === 'size' ? (
        <Panel title="Size" onClose={close}>
          <SizePanel
            workspace={workspace}
            brief={brief}
            was={was}
            view={view}
            forecast={forecast}
            measured={proofs.find((p) => p.file_bytes)?.file_bytes ?? null}
            unit={unit}
            onUnit={setUnit}
            before={frameBefore}
            onBefore={setFrameBefore}
            onChange={change}
            onMessage={setMessage}
            onWorkspace={setWorkspace}
          />
        </Panel>
      ) : panel === 'quality' ? (
        <Panel title="Quality" onClose={close}>
          <QualityPanel
            workspace={workspace}
            brief={brief}
            was={was}
            view={view}
            forecast={forecast}
            running={running}
            ended={proofs.find((p) => p.ended_at_ms !== null) ?? null}
            soFar={soFar}
            onTry={(cost) => void tryLess(cost)}
            onChange={change}
            onMessage={setMessage}
            onWorkspace={setWorkspace}
          />
        </Panel>
      ) : panel === 'model' ? (
        <Panel title="Model" onClose={close}>
          <ModelPanel workspace={workspace} />
        </Panel>
      ) : panel === 'stage' ? (
        <Panel title="Stage" onClose={close}>
          <StagePanel view={stageView} onChange={setStageView} />
        </Panel>
      ) : panel === 'keys' ? (
        <Panel title="Keys" onClose={close}>
          <KeysPanel />
        </Panel>
      ) : null}
      <span className="vh" aria-live="polite">
        {sizeLabel(brief.size)}
      </span>
    </main>
  );
}
