'use client';
/**
 * The stage: the sheet on the mat with its rulers and marks, and on it the proof, or the model while one moves about.
 */
import { type RefObject, useEffect, useRef, useState } from 'react';
import type { ProofDto } from '../../contracts/dto';
import type { FreeViewpoint } from '../../core/camera/viewpoint';
import type { Brief } from '../../core/brief/brief';
import type { Vec3 } from '../../core/math/vec3';
import { shareOfSheet } from '../../core/output/size';
import type { ModelPart } from '../../core/scene/model-part';
import { Ruler } from '../../ui/ruler';
import { SheetMarks } from '../../ui/sheet-marks';
import { sheetGeometry } from '../shared/sheet-geometry';
import { pictureOf } from '../shared/ticket';
import type { Beside } from './beside';
import { BESIDE_COPY, stageNote } from './copy';
import { usePreview } from './preview/use-preview';
import { type StageView, threadsOf } from './use-stage-view';
import { LampMarks } from './lamp-marks';
import { FINISH_COPY } from './finish/copy';
import { FinishCanvas } from './finish/finish-canvas';
import type { Compared, Finishing } from './finish/use-finishing';
import { DropOnStage } from './material-drop';
import { PartFrame } from './part-frame';
import { PickLayer } from './pick-layer';
import { inPercent } from './picked-place';
import type { DrawnModel, LampMark, Picking } from './view';
import { StageGuides } from './stage-guides';
import { sharpDepths } from '../../core/camera/drawn-views';
import { Viewport } from './raster/viewport';
import type { Zoom } from './zoom';

const MODEL_SAYS =
  'Model: drag to turn, right-drag to pan, wheel to go nearer; arrows and plus or minus do the same; W, A, S and D walk';

const COMPARED: readonly Compared[] = ['before', 'after', 'parted'];

interface Props {
  project: string;
  /** Content hash of the model. */
  model: string;
  brief: Brief;
  inches: boolean;
  /** Proportion of the frame before the sheet's changed; drawn as a hairline. */
  frameBefore: number | null;
  view: FreeViewpoint;
  sun: Vec3 | null;
  name: string;
  proof: ProofDto | null;
  /** The whole picture that a patch lies on, or that is seen until a render has a picture of its own everywhere. */
  under: ProofDto | null;
  /** Words of the brief that differ from the proof's. */
  changes: number;
  tried: string | null;
  showModel: boolean;
  /** The proof with its grain, though it is denoised. */
  beforeDenoising: boolean;
  zoom: Zoom;
  stageView: StageView;
  /** The film that is being finished, in place of all else; null when none is. */
  finishing: Finishing | null;
  /** What is shown beside the sheet. */
  beside: Beside | null;
  onBeside: (key: string | null) => void;
  /** What renders on this machine, while the preview waits. */
  rendering: string | null;
  /** A point of the model that a panel asks for. */
  picking: Picking | null;
  /** The part of the model that is in hand, and whether it alone is drawn. */
  part: ModelPart | null;
  partAlone: boolean;
  /** Is given what only the drawn model knows. */
  readings: RefObject<DrawnModel | null>;
  /** Lamps to be marked. */
  marks: readonly LampMark[];
  onMark: (index: number) => void;
  /** The exposure of the preview that is seen, EV100; null when none is. */
  onReading: (ev100: number | null) => void;
  /** Whether the preview is at its first samples, which nothing else should hold up. */
  onFirstLook: (under: boolean) => void;
  /** Whether the lens is being set: where it is sharp is drawn. */
  lensOpen: boolean;
  stageOpen: boolean;
  onStage: () => void;
  onShow: (model: boolean) => void;
  patchAsked: boolean;
  onPatch: () => void;
  onBeforeDenoising: () => void;
  onZoom: (zoom: Zoom) => void;
  onMoved: (view: FreeViewpoint, joins: boolean) => void;
}

/** Samples a pixel that are a picture one can judge, and how long they are waited for. */
const FIRST_SAMPLES = 4;
const FIRST_LOOK_MS = 20_000;

// CSS pixels of a millimetre on a screen of 96 px an inch: the best that can be known without measuring the screen.
const PX_PER_MM = 96 / 25.4;

export function Stage(props: Props) {
  const { proof, view, sun, showModel, zoom, stageView, readings } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const viewport = useRef<Viewport | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [place, setPlace] = useState({ width: 0, height: 0 });
  const [moving, setMoving] = useState(false);
  const [weak, setWeak] = useState(false);
  const truth = useRef<HTMLCanvasElement>(null);
  const moved = useRef(props.onMoved);
  moved.current = props.onMoved;
  const show = useRef(props.onShow);
  show.current = props.onShow;
  const seenPicture = useRef<() => HTMLCanvasElement | HTMLImageElement | null>(() => null);
  /** The model takes the brightness of the picture that it comes in place of. */
  const asBright = () => {
    const seen = seenPicture.current();
    if (seen) viewport.current?.matchBrightness(seen);
  };
  /** Drawn, not rendered. */
  const alone = props.partAlone && props.part ? props.part.path : null;
  const g = sheetGeometry(props.brief.size, props.inches);

  useEffect(() => {
    let created: Viewport;
    try {
      created = new Viewport(canvas.current!, {
        onMove: () => {
          asBright();
          setMoving(true);
          show.current(true);
        },
        onRest: (v, joins) => {
          setMoving(false);
          moved.current(v, joins);
        }
      });
    } catch {
      setFault('This browser cannot draw the model (no WebGL), so navigation is off. Proofs still render.');
      return;
    }
    viewport.current = created;
    readings.current = created.readings;
    setWeak(created.weak);
    created
      .load(`/api/models/${props.model}`)
      .catch(() => setFault('The model could not be loaded. Reload the page. Proofs still render.'));
    return () => {
      viewport.current = null;
      readings.current = null;
      created.dispose();
    };
  }, [props.model, readings]);

  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect;
      viewport.current?.resize(width, height);
      setPlace({ width, height });
    });
    observer.observe(frame.current!);
    return () => observer.disconnect();
    // a new viewport learns its size as the first one did
  }, [props.model]);

  const viewKey = JSON.stringify(view);
  useEffect(() => {
    viewport.current?.look(JSON.parse(viewKey) as FreeViewpoint);
  }, [viewKey, props.model]);
  const { edges, depth } = stageView;
  const shading = stageView.shading === 'shaded' && props.brief.look.kind === 'clay' ? 'clay' : stageView.shading;
  const ground = standsOn(props.brief);
  useEffect(() => {
    viewport.current?.shade({ shading, edges, depth, ground });
  }, [shading, edges, depth, ground, props.model]);
  const zone = props.lensOpen && stageView.zone ? JSON.stringify(sharpDepths(view), endlessAsText) : 'null';
  useEffect(() => {
    const limits = JSON.parse(zone) as ReturnType<typeof sharpDepths>;
    viewport.current?.markZone(limits && { ...limits, far: Number(limits.far) });
  }, [zone, props.model]);
  const { open_backs } = props.brief;
  useEffect(() => viewport.current?.openBacks(open_backs), [open_backs, props.model]);
  const section = JSON.stringify(props.brief.section);
  useEffect(() => viewport.current?.cut(JSON.parse(section) as Brief['section']), [section, props.model]);
  const { pose, placed, curves_mm, materials } = props.brief;
  const arrangement = JSON.stringify({ pose, placed, alone, curves: curves_mm !== null, materials });
  useEffect(() => {
    viewport.current?.pose(JSON.parse(arrangement) as Parameters<Viewport['pose']>[0]);
  }, [arrangement, props.model]);
  const sunKey = JSON.stringify(sun);
  useEffect(() => {
    viewport.current?.light(JSON.parse(sunKey) as Vec3 | null);
  }, [sunKey, props.model]);

  const mm = g.unit === 'in' ? 25.4 : 1;
  const ratio = typeof devicePixelRatio === 'number' ? devicePixelRatio : 1;
  const fixed =
    zoom === 'true' ? (g.paper ? PX_PER_MM * mm : 1 / ratio) : zoom === 'pixel' ? g.width_px / ratio / g.width : null;
  const full = g.paper ? g.width * mm * PX_PER_MM : g.width_px / ratio;
  const picture = proof && proof.picture_count > 0 ? proof : null;
  const { finishing } = props;
  const modelSeen = !finishing && (showModel || !(picture ?? props.under));
  const preview = usePreview(truth, {
    project: props.project,
    model: props.model,
    brief: props.brief,
    width: place.width * ratio,
    height: place.height * ratio,
    on: stageView.preview && !finishing,
    threads: stageView.preview ? threadsOf(stageView) : 1,
    seen: modelSeen && alone === null,
    moving,
    waitsFor: props.rendering,
    weak
  });
  const reading = preview.picture?.ev100 ?? null;
  const { onReading } = props;
  useEffect(() => onReading(reading), [reading, onReading]);
  const bleeds = picture !== null && picture.brief.bleed_mm > 0 && !modelSeen;
  const comes = stageView.preview && preview.fault === null && preview.waitsFor === null;
  const firstLook = comes && modelSeen && !moving && preview.samples < FIRST_SAMPLES;
  const { onFirstLook } = props;
  useEffect(() => {
    onFirstLook(firstLook);
    const enough = setTimeout(() => onFirstLook(false), FIRST_LOOK_MS);
    return () => clearTimeout(enough);
  }, [firstLook, onFirstLook]);
  // a weak machine draws the model only while it is in hand
  // where a render has no picture yet and no proof lies under it, the model is seen
  const holes = !modelSeen && picture?.state === 'running' && !props.under;
  const drawn = holes || (modelSeen && !preview.picture && (moving || alone !== null || !weak || !comes));
  useEffect(() => {
    viewport.current?.show(drawn);
  }, [drawn, props.model]);
  seenPicture.current = () =>
    finishing
      ? finishing.now.current
      : preview.picture
        ? truth.current
        : (frame.current?.querySelector('img:not(.under)') ?? frame.current?.querySelector('img') ?? null);
  const sharp =
    zoom === 'pixel' && picture && picture.state !== 'running'
      ? `/api/proofs/${picture.id}/file?kind=png${props.beforeDenoising ? '&raw' : ''}`
      : null;
  const note =
    props.picking?.says ??
    (finishing ? FINISH_COPY.note : null) ??
    stageNote({
      proof: picture ?? props.under,
      until: picture ? null : (proof?.number ?? null),
      changes: props.changes,
      tried: props.tried,
      showModel,
      share: place.width > 0 ? place.width / full : null,
      paper: g.paper,
      preview,
      drawn
    });
  return (
    <section className="stage" aria-label="Stage" id="sheet" tabIndex={-1}>
      <div className={`sheetbox${fixed ? ' free' : ''}`}>
        <div
          className={`sheet ${g.paper ? 'pap' : 'scr'}`}
          style={{
            ['--W' as string]: g.width,
            ['--H' as string]: g.height,
            ['--M' as string]: g.margin,
            ['--SW' as string]: g.width + 2 * g.margin,
            ['--SH' as string]: g.height + 2 * g.margin,
            ...(fixed ? { ['--mm' as string]: `${fixed}px` } : {})
          }}
        >
          <Ruler side="h" length={g.width} unit={g.unit} />
          <Ruler side="v" length={g.height} unit={g.unit} />
          <div className={`im${bleeds ? ' bleeds' : ''}${zone === 'null' || drawn ? '' : ' zoned'}`} ref={frame}>
            <canvas
              // a canvas whose drawing was given up cannot be drawn on again
              key={props.model}
              ref={canvas}
              tabIndex={0}
              aria-label={MODEL_SAYS}
            />
            <canvas
              ref={truth}
              className="truth"
              hidden={!preview.picture}
              data-samples={preview.picture?.samples}
              data-film={preview.picture?.film}
              aria-hidden
            />
            {finishing && picture ? (
              <FinishCanvas finishing={finishing} name={props.name} place={inPercent(shareOfSheet(picture.brief))} />
            ) : null}
            <DropOnStage />
            {props.picking ? (
              <PickLayer
                key={props.picking.asks}
                picking={props.picking}
                viewport={viewport}
                seen={() => seenPicture.current()}
                width_px={g.width_px}
                height_px={g.height_px}
              />
            ) : null}
            {props.frameBefore ? (
              <div className="before" style={hairline(props.frameBefore, g.width_px / g.height_px)} />
            ) : null}
            {props.marks.length > 0 && place.width > 0 ? (
              <LampMarks marks={props.marks} view={view} aspect={place.width / place.height} onChoose={props.onMark} />
            ) : null}
            {place.width > 0 ? (
              <StageGuides guides={stageView.guides} view={view} aspect={place.width / place.height} />
            ) : null}
            {props.part && place.width > 0 ? (
              <PartFrame part={props.part} pose={props.brief.pose} view={view} aspect={place.width / place.height} />
            ) : null}
            {(picture || props.under) && !finishing?.film && !(modelSeen && (drawn || preview.picture)) ? (
              <>
                {props.under ? (
                  <img
                    src={pictureOf(props.under)}
                    alt=""
                    className="under"
                    style={{ pointerEvents: 'none', ...inPercent(shareOfSheet(props.under.brief)) }}
                  />
                ) : null}
                {picture ? (
                  <img
                    src={sharp ?? pictureOf(picture, props.beforeDenoising ? 'raw' : 'screen')}
                    alt={`${picture.brief.patch ? 'Patch' : 'Proof'} ${picture.number}: ${props.name}`}
                    className={picture.brief.patch ? 'patch' : undefined}
                    style={{ pointerEvents: 'none', ...inPercent(shareOfSheet(picture.brief)) }}
                  />
                ) : null}
              </>
            ) : null}
          </div>
          <SheetMarks
            width={g.width}
            height={g.height}
            margin={g.margin}
            registration={g.paper && g.width > g.height ? 'both' : 'top'}
          />
          {g.paper ? (
            <>
              <span className={`slug l${g.width > g.height ? ' half' : ''}`}>
                {props.name}
                {picture && !showModel ? `. Proof ${picture.number}, revision ${picture.revision}` : ''}
              </span>
              <span className="slug r n">
                {Math.round(g.width * 10) / 10} × {Math.round(g.height * 10) / 10}&nbsp;{g.unit}
              </span>
            </>
          ) : null}
        </div>
      </div>
      {props.beside ? (
        <figure className="reference">
          <img src={props.beside.src} alt={props.beside.name} />
          <figcaption>
            {props.beside.name}
            <button type="button" aria-label={BESIDE_COPY.close} onClick={() => props.onBeside(null)}>
              ×
            </button>
          </figcaption>
        </figure>
      ) : null}
      {fault ? <p className="over">{fault}</p> : null}
      <div className="view">
        <span className="n" title={note}>
          {note}
        </span>
        <div>
          {finishing ? (
            COMPARED.map((key) => (
              <button
                key={key}
                type="button"
                aria-pressed={finishing.compared === key}
                title={key === 'before' ? FINISH_COPY.beforeHint : undefined}
                onClick={() => finishing.onCompared(key)}
              >
                {FINISH_COPY.compared[key]}
              </button>
            ))
          ) : (
            <>
              {picture ? (
                <button
                  type="button"
                  aria-pressed={showModel}
                  onClick={() => {
                    if (!showModel) asBright();
                    props.onShow(!showModel);
                  }}
                >
                  {showModel ? 'Back to the proof' : 'Navigate'}
                </button>
              ) : null}
              {picture && picture.denoise_share === 1 && !showModel ? (
                <button
                  type="button"
                  aria-pressed={props.beforeDenoising}
                  onClick={props.onBeforeDenoising}
                  title="The proof before denoising, to compare"
                >
                  Before denoising
                </button>
              ) : null}
              <button
                type="button"
                aria-pressed={props.patchAsked}
                onClick={props.onPatch}
                title="Render a rectangle of the picture alone, at full size: draw it"
              >
                Patch
              </button>
              <button
                type="button"
                aria-pressed={props.stageOpen}
                onClick={props.onStage}
                title="How the stage shows the picture: rendered, or the model and how it is drawn"
              >
                Stage
              </button>
            </>
          )}
          {(
            [
              ['whole', 'Whole sheet'],
              ['true', 'True size'],
              ['pixel', 'Pixel for pixel']
            ] as const
          ).map(([key, label]) => (
            <button key={key} type="button" aria-pressed={zoom === key} onClick={() => props.onZoom(key)}>
              {label}
            </button>
          ))}
        </div>
      </div>
    </section>
  );
}

/** What takes the shadow of the model; null where there is nothing. */
const standsOn = ({ ground, surroundings }: Brief): number | 'foot' | null =>
  ground.kind === 'shadow' ? (ground.height_m ?? 'foot') : surroundings.kind === 'studio' ? 'foot' : null;

// JSON has no endless numbers
const endlessAsText = (_key: string, value: unknown) => (value === Number.POSITIVE_INFINITY ? 'Infinity' : value);

/** The frame of a proportion within one of another that shows all of it, in shares of that. */
function hairline(before: number, now: number) {
  const [width, height] = now < before ? [1, now / before] : [before / now, 1];
  return inPercent({ x: (1 - width) / 2, y: (1 - height) / 2, width, height });
}
