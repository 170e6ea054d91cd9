'use client';
/**
 * The workspace: brief line, pictures, stage, proofs, one open panel. What they share is in workspace-store.ts; every
 * change of the brief is saved at once.
 */
import { useEffect, useMemo, useRef, useState } from 'react';
import type { OpenPictureDto, PictureDto, ProofDto, WorkspaceChangesDto, WorkspaceDto } from '../../contracts/dto';
import {
  type Brief,
  briefChanges,
  canonicalJson,
  developKey,
  filmBrief,
  GROUND_DEFAULTS,
  type Patch
} from '../../core/brief/brief';
import type { Change } from '../../core/brief/fields/walk';
import { about, BRIEF_PANELS, composeSentence, countChanges, restingPanels } from '../../core/brief/sentence';
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
import type { Removed } from '../../core/catalogue/removable';
import { bringBack, removeThing } from '../shared/edit-item';
import { send } from '../shared/send';
import { useChanges } from '../shared/use-changes';
import { everywhere, PLAIN_RULE, withMaterial } from './assigning';
import { BriefLine } from './brief-line';
import { Dimmers } from './finish/dimmers';
import { useFinishing } from './finish/use-finishing';
import { besides } from './beside';
import { WORKSPACE_COPY as COPY } from './copy';
import { MaterialDrag } from './material-drop';
import { Pictures } from './pictures';
import { isPanelName, OpenedPanel } from './panels/catalogue';
import { ProofStrip } from './proof-strip';
import { Stage } from './stage';
import { type ChangeBrief, useBrief } from './use-brief';
import { useForecast, useGrainSoFar } from './use-forecast';
import { useKeys } from './use-keys';
import { usePanelAddress } from './use-panel-address';
import { useSpokenChange } from './use-spoken-change';
import { whyAsked } from './why-asked';
import { usePicture } from './use-picture';
import { useStageView } from './use-stage-view';
import { usePartInHand } from './use-model-parts';
import { type DrawnModel, freeView, type LampMark, lampsOf, type PanelContext, placesOf, proofUnder } from './view';
import { createWorkspaceStore, useWorkspaceStore, WorkspaceStoreContext } from './workspace-store';

/** Changes that the live view shows: all but those of how large and how fine the picture is. */
const isSeenLive = ({ word }: Change) => word !== 'size' && word !== 'quality';

/** What decides a brief's film, as text. Cached per brief, because each change compares it with every proof. */
const filmTexts = new WeakMap<Brief, string>();
function filmText(brief: Brief): string {
  const known = filmTexts.get(brief) ?? canonicalJson(filmBrief(brief));
  filmTexts.set(brief, known);
  return known;
}

export function Workspace({ initial, asked }: { initial: WorkspaceDto; asked: string | null }) {
  const [store] = useState(() => {
    const created = createWorkspaceStore(initial);
    if (asked !== null && asked !== initial.opened.picture.id) created.getState().set({ message: COPY.noSuchPicture });
    return created;
  });
  return (
    <WorkspaceStoreContext.Provider value={store}>
      <OpenWorkspace since={initial.stamp} />
    </WorkspaceStoreContext.Provider>
  );
}

function OpenWorkspace({ since }: { since: WorkspaceDto['stamp'] }) {
  const state = useWorkspaceStore((all) => all);
  const { workspace, panel, showModel, zoom, sheetUnit, frameBefore, message, removed, previewEv, picking } = state;
  const { lampInHand, partAlone, gathering, set, openPanel, togglePanel, chooseProof } = state;
  const [firstLook, setFirstLook] = useState(false);
  const [slow, setSlow] = useState(false);
  const [asks, setAsks] = useState<string | null>(null);
  const setMessage = (text: string | null) => set({ message: text });

  const { picture, proofs, earlier } = workspace.opened;
  const shown = proofs.find((p) => p.id === state.proofId) ?? proofs.find((p) => p.picture_count > 0) ?? null;
  const under = shown ? proofUnder(shown, proofs) : null;
  const beforeDenoising = state.beforeDenoising && shown !== null && shown.denoise_share === 1;

  const {
    brief,
    change: save,
    history: goBack,
    settled
  } = useBrief(picture, state.replacePicture, setMessage, setSlow);
  const [stageView, setStageView] = useStageView();
  // what changes the view or the light is judged in the live view
  const change: ChangeBrief = (part, joins) => {
    save(part, joins);
    if (panel === 'finish') return;
    if (stageView.preview && briefChanges({ ...brief, ...part }, brief).some(isSeenLive)) set({ showModel: true });
  };
  const history = (by: -1 | 1) => {
    goBack(by);
    onStep(by);
    if (stageView.preview && shown && panel !== 'finish') set({ showModel: true });
  };
  /** All of the project, as after a newer model. */
  const reload = async () => {
    const now = await send<WorkspaceDto>('GET', `/api/projects/${workspace.project.id}?picture=${picture.id}`);
    if (now.ok) state.update(now.value);
  };
  useChanges<WorkspaceChangesDto>(
    workspace.project.id,
    (stamp) => `/api/projects/${workspace.project.id}/changes?since=${stamp}&picture=${picture.id}`,
    since,
    (changes) => {
      if (changes.model !== workspace.revision.glb_sha256) void reload();
      return state.applyChanges(changes);
    }
  );

  const view = freeView(brief, workspace);
  const sun = useMemo(() => {
    if (brief.surroundings.kind !== 'sky') return null;
    const { direction } = skyLights(brief.surroundings).sun;
    return direction[1] > 0 ? direction : null;
  }, [brief.surroundings]);

  const film = useMemo(() => filmText(brief), [brief]);
  const ofThisFilm = proofs.filter(
    (p) =>
      (p.state === 'done' || p.state === 'running' || p.state === 'waiting') &&
      p.current &&
      p.revision === workspace.revision.number &&
      filmText(p.brief) === film
  );
  const identicalProof =
    ofThisFilm.find((p) => p.state !== 'done' || developKey(p.brief.finish) === developKey(brief.finish)) ?? null;
  const running = proofs.find((p) => p.state === 'running') ?? null;
  const forecast = useForecast(
    workspace.project.id,
    brief,
    workspace.machine,
    workspace.rendering !== null || firstLook
  );
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
    projection: view.projection,
    lampGroups: lamps.filter((l) => settingOf(brief.lamps, l.group, l.hidden).on || !l.hidden).map((l) => l.group)
  });

  const { spoken, onStep } = useSpokenChange(
    picture.id,
    sentence,
    forecast.now && !forecast.stale ? about(forecast.now.seconds) : null
  );
  usePanelAddress(panel, isPanelName, openPanel);

  const render = async (patch: Patch | null = null, saving: Saving | null = null) => {
    // a change that is on its way belongs to this proof
    await settled();
    const sent = await send<ProofDto>('POST', `/api/pictures/${picture.id}/proofs`, { patch, saving });
    if (!sent.ok) return setMessage(sent.message);
    setMessage(null);
    chooseProof(sent.value.id);
    state.addProof(sent.value);
  };
  /** What takes a night or half the disk is asked first. */
  const renderWhole = () => {
    const why = ofThisFilm.length === 0 && forecast.now ? whyAsked(forecast.now, workspace) : null;
    setAsks(why);
    if (why === null) void render();
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
  const stop = (proof: ProofDto, how: 'stop' | 'continue') =>
    void send('POST', `/api/proofs/${proof.id}/stop`, { how }).then((r) => !r.ok && setMessage(r.message));
  const noteRemoved = (next: Removed) => {
    set({ removed: next });
    // the picture in hand is gone: the one beside it takes its place
    if (next.id !== picture.id) return;
    const beside = step(
      workspace.pictures.filter((p) => p.id !== next.id),
      null,
      0
    );
    if (beside) choosePicture(beside.id);
  };
  const removeProof = async ({ id }: ProofDto) => {
    const sent = await removeThing('proof', id);
    if (sent.ok) noteRemoved(sent.value);
    else setMessage(sent.message);
  };
  const undoRemoval = async () => {
    const sent = await bringBack(removed!);
    set({ removed: null });
    if (!sent.ok) return setMessage(sent.message);
    await reload();
  };
  const choosePicture = usePicture(workspace.project.id, picture.id, state.openPicture, setMessage);
  const addPicture = async () => {
    await settled();
    const sent = await send<PictureDto>('POST', `/api/pictures/${picture.id}/copy`);
    if (!sent.ok) return setMessage(sent.message);
    choosePicture(sent.value.id);
  };
  const movePicture = async (by: -1 | 1) => {
    const sent = await send<{ order: string[] }>('POST', `/api/pictures/${picture.id}/place`, { by });
    if (!sent.ok) return setMessage(sent.message);
    const { order } = sent.value;
    state.update((now) => ({
      ...now,
      pictures: now.pictures
        .map((p) => ({ ...p, position: order.indexOf(p.id) }))
        .sort((a, b) => a.position - b.position)
    }));
  };
  const showEarlier = async () => {
    const path = `/api/pictures/${picture.id}/proofs?before=${proofs.at(-1)!.number}`;
    const sent = await send<Pick<OpenPictureDto, 'proofs' | 'earlier'>>('GET', path);
    if (sent.ok) state.addEarlierProofs(sent.value);
    else setMessage(sent.message);
  };
  const step = <T extends { id: string }>(list: T[], id: string | null, by: number) =>
    list[Math.min(list.length - 1, Math.max(0, list.findIndex((x) => x.id === id) + by))];

  const drawPatch = () => {
    if (picking?.asks === 'patch') return set({ picking: null });
    set({
      picking: {
        asks: 'patch',
        says: 'Draw a rectangle. It is rendered alone, at full size.',
        onRect: (rect) => {
          set({ picking: null });
          void render(rect);
        }
      }
    });
  };

  useKeys({
    brief: (number) => openPanel(BRIEF_PANELS[number - 1] ?? panel),
    keys: () => togglePanel('keys'),
    escape: () => {
      if (picking || gathering) set({ picking: null, gathering: null });
      else openPanel(null);
    },
    render: () => !identicalProof && renderWhole(),
    stop: () => {
      if (running) stop(running, 'stop');
    },
    picture: (by) => choosePicture(step(workspace.pictures, picture.id, by)!.id),
    proof: (by) => chooseProof(step(proofs, shown?.id ?? null, by)?.id ?? null),
    zoom: (next) => set({ zoom: next }),
    model: () => set({ showModel: !showModel }),
    patch: drawPatch,
    finish: () => togglePanel('finish'),
    history
  });
  useEffect(() => {
    document.title = COPY.title(picture.name, workspace.project.name);
  }, [picture.name, workspace.project.name]);
  useAlive();

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
    if (gathering)
      set({ gathering: gathering.includes(name) ? gathering.filter((n) => n !== name) : [...gathering, name] });
    else set({ lampInHand: lampGroup(name) });
  };
  const finishing = useFinishing(shown, brief.finish, panel === 'finish' && !showModel);
  const part = usePartInHand(workspace, panel === 'pose' || panel === 'model');
  const readings = useRef<DrawnModel | null>(null);
  const context: PanelContext = {
    workspace,
    picture,
    brief,
    was,
    view,
    reading: previewEv ?? shown?.ev100 ?? null,
    picking,
    onPicking: (next) => set({ picking: next }),
    onPicture: state.replacePicture,
    onChange: change,
    onMessage: setMessage,
    onWorkspace: state.update,
    lamps,
    forecast,
    shown,
    proofs,
    soFar,
    onTry: (cost) => void tryLess(cost),
    drawn: readings,
    finishing,
    stageView,
    onStageView: setStageView
  };
  const dropMaterial = (key: string, material: string, part: string) => {
    set({ materialInHand: everywhere(material), materialPart: part });
    change({ materials: withMaterial(brief.materials, everywhere(material), { ...PLAIN_RULE, becomes: key }) });
  };
  return (
    <MaterialDrag drawn={readings} onDrop={dropMaterial}>
      <main className={`frame${panel ? '' : ' shut'}`}>
        <a className="skip" href="#sheet">
          {COPY.skip}
        </a>
        <h1 className="vh">{COPY.heading(picture.name, workspace.project.name)}</h1>
        <Mark client={workspace.project.name} />
        <BriefLine
          sentence={sentence}
          resting={restingPanels(sentence, brief, was)}
          open={panel}
          onOpen={togglePanel}
          forecast={forecast.now}
          ahead={workspace.ahead}
          asks={asks}
          onAsked={(yes) => {
            setAsks(null);
            if (yes) void render();
          }}
          identicalProof={identicalProof}
          film={identicalProof ? null : (ofThisFilm[0] ?? null)}
          message={slow ? COPY.notSaved : message}
          removed={removed}
          onUndoRemoval={() => void undoRemoval()}
          onDismiss={() => set({ message: null, removed: null })}
          onRender={renderWhole}
        />
        <Pictures
          workspace={workspace}
          current={picture}
          onChoose={choosePicture}
          onAdd={() => void addPicture()}
          onRenamed={(name) => state.replacePicture({ ...picture, name, changes: picture.changes + 1 })}
          onRemoved={noteRemoved}
          onMove={(by) => void movePicture(by)}
          onMessage={setMessage}
          open={panel}
          onOpen={togglePanel}
        />
        <Stage
          project={workspace.project.id}
          model={workspace.revision.glb_sha256}
          brief={brief}
          inches={sheetUnit === 'in'}
          frameBefore={panel === 'size' ? (frameBefore?.aspect ?? null) : null}
          view={view}
          sun={sun}
          name={picture.name}
          proof={shown}
          under={under}
          changes={was ? countChanges(brief, was) : 0}
          tried={was?.patch ? triedWith(was, brief) : null}
          showModel={showModel || !shown || (shown.picture_count === 0 && !under)}
          beforeDenoising={beforeDenoising}
          zoom={zoom}
          stageView={stageView}
          finishing={finishing.state === 'none' ? null : finishing}
          beside={
            besides(workspace, picture.id, proofs, shown?.id ?? null).find(({ key }) => key === state.beside) ?? null
          }
          onBeside={(key) => set({ beside: key })}
          rendering={workspace.rendering}
          picking={picking}
          part={part}
          partAlone={partAlone}
          readings={readings}
          marks={marks}
          onMark={pressMark}
          onReading={state.readExposure}
          onFirstLook={setFirstLook}
          lensOpen={panel === 'lens'}
          stageOpen={panel === 'stage'}
          onStage={() => togglePanel('stage')}
          onShow={(model) => set({ showModel: model })}
          patchAsked={picking?.asks === 'patch'}
          onPatch={drawPatch}
          onBeforeDenoising={() => set({ beforeDenoising: !state.beforeDenoising })}
          onZoom={(next) => set({ zoom: next })}
          onMoved={(viewpoint, joins) => change({ viewpoint }, joins)}
        />
        {panel ? <OpenedPanel key={panel} name={panel} context={context} onClose={() => openPanel(null)} /> : null}
        {finishing.state !== 'none' && shown ? (
          <Dimmers
            finishing={finishing}
            brief={brief}
            before={shown.brief.finish}
            onChange={change}
            onBack={() => openPanel(null)}
          />
        ) : (
          <ProofStrip
            picture={picture}
            brief={brief}
            proofs={proofs}
            earlier={earlier}
            onEarlier={() => void showEarlier()}
            shown={shown}
            beforeDenoising={beforeDenoising}
            glanceSeconds={glance?.seconds ?? null}
            onChoose={chooseProof}
            onStop={stop}
            onRemove={(proof) => void removeProof(proof)}
            onWithoutPaper={() => change({ ground: GROUND_DEFAULTS })}
            onHistory={history}
            filesOpen={panel === 'files'}
            onFiles={() => togglePanel('files')}
            finishOpen={panel === 'finish'}
            onFinish={() => togglePanel('finish')}
          />
        )}
        <span className="vh" aria-live="polite">
          {spoken}
        </span>
      </main>
    </MaterialDrag>
  );
}
