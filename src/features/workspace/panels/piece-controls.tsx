/** Pieces and further models that stand in the picture: placed by a press on the stage, scattered over a part, set by numbers. */
import { type RefObject, useRef, useState } from 'react';
import type { WorkspaceDto } from '../../../contracts/dto';
import type { Brief, PlacedPiece } from '../../../core/brief/brief';
import { PIECE_KINDS, PIECES } from '../../../core/catalogue/pieces';
import type { ModelPart } from '../../../core/scene/model-part';
import { createRandom } from '../../../core/sampling/random';
import { ChooseFiles } from '../../shared/choose-files';
import { send, uploadAll } from '../../shared/send';
import { NumberField } from '../../../ui/number-field';
import { Words } from '../../../ui/words';
import { POSE_COPY as COPY } from '../copy';
import { groupPieces, newPiece, roundedPlace, scattered, withAxis } from '../posing';
import type { DrawnModel, Picking } from '../view';
import { FAR_MM, MM, SEEN_WORDS } from './part-controls';
import { AxisNames, XyzFields } from './xyz-fields';

interface Props {
  /** Id of the project. */
  project: string;
  further: WorkspaceDto['further'];
  /** After a model of one's own was brought in. */
  onFurther: () => Promise<void>;
  placed: Brief['placed'];
  /** The part in hand, over which pieces are scattered. */
  part: ModelPart | null;
  picking: Picking | null;
  onPicking: (picking: Picking | null) => void;
  onPlaced: (placed: Brief['placed']) => void;
  onMessage: (text: string | null) => void;
  drawn: RefObject<DrawnModel | null>;
}

const MOST_PIECES = 2000;

export function PieceControls({
  project,
  further,
  onFurther,
  placed,
  part,
  picking,
  onPicking,
  onPlaced,
  onMessage,
  drawn
}: Props) {
  const [chosen, setChosen] = useState<number | null>(null);
  const [listOpen, setListOpen] = useState(false);
  const [kind, setKind] = useState<string>(PIECES[0].key);
  const [count, setCount] = useState(24);
  const [busy, setBusy] = useState<string | null>(null);
  /** A press on the stage adds to what is there then, not to what was there when it was asked for. */
  const latest = useRef(placed);
  latest.current = placed;
  const change = (next: Brief['placed']) => {
    latest.current = next;
    onPlaced(next);
  };
  const placing = picking?.asks === 'place';
  const piece = chosen === null ? null : (placed[chosen] ?? null);

  const placeOnStage = (model: string, name: string) => {
    setKind(model);
    onPicking({
      asks: 'place',
      says: COPY.placeSays(name),
      onPick: (point, _normal, joins) => {
        if (joins) return;
        setChosen(latest.current.length);
        change([...latest.current, newPiece(model, name, point)]);
      }
    });
  };
  const setAt = (index: number, less: Partial<PlacedPiece>) =>
    change(latest.current.map((p, i) => (i === index ? { ...p, ...less } : p)));
  const set = (less: Partial<PlacedPiece>) => setAt(chosen!, less);
  const moveOnStage = ({ name }: PlacedPiece, index: number) =>
    onPicking({
      asks: 'place',
      says: COPY.moveSays(name),
      onPick: (point, _normal, joins) => {
        if (joins) return;
        onPicking(null);
        setAt(index, { position_m: roundedPlace(point) });
      }
    });
  const takeOut = (gone: readonly number[]) => {
    setChosen(null);
    onPlaced(placed.filter((_, i) => !gone.includes(i)));
  };
  const entry = [...PIECES.map(({ key, name }) => ({ model: key as string, name: name as string })), ...further].find(
    (p) => p.model === kind
  ) ?? { model: PIECES[0].key, name: PIECES[0].name };
  const bring = async (files: File[]) => {
    const sent = await uploadAll(files, (share) => setBusy(COPY.sending(share)), new AbortController().signal);
    setBusy(sent.ok ? COPY.reading : null);
    if (!sent.ok) return onMessage(sent.message);
    const made = await send<{ model: string; name: string }>('POST', `/api/projects/${project}/further`, {
      files: sent.value
    });
    if (made.ok) await onFurther();
    setBusy(null);
    onMessage(made.ok ? null : made.message);
    if (made.ok) placeOnStage(made.value.model, made.value.name);
  };
  const scatter = () => {
    const seed = placed.length + 1;
    const places = drawn.current?.placesOn(part!.path, Math.min(count, MOST_PIECES - placed.length), seed) ?? [];
    if (places.length === 0) return onMessage(COPY.scatterNowhere);
    onMessage(null);
    onPlaced([...placed, ...scattered(entry.model, entry.name, places, createRandom(seed))]);
  };
  return (
    <div className="sec">
      <div className="row">
        <span className="lab">{COPY.pieces}</span>
        <button
          type="button"
          className="lk act"
          aria-expanded={listOpen}
          aria-pressed={placing}
          onClick={() => (placing ? onPicking(null) : setListOpen(!listOpen))}
        >
          {placing ? COPY.placing : COPY.place}
        </button>
      </div>
      {listOpen
        ? (Object.keys(PIECE_KINDS) as (keyof typeof PIECE_KINDS)[]).map((group) => (
            <div key={group} className="list two-up" role="group" aria-label={PIECE_KINDS[group]}>
              {PIECES.filter((p) => p.kind === group).map(({ key, name, height_m }) => (
                <button
                  key={key}
                  type="button"
                  aria-pressed={placing && kind === key}
                  onClick={() => placeOnStage(key, name)}
                >
                  {name}
                  <span className="n">{COPY.ofHeight(height_m)}</span>
                </button>
              ))}
            </div>
          ))
        : null}
      {listOpen ? (
        <>
          {further.length > 0 ? (
            <div className="list two-up" role="group" aria-label={COPY.further}>
              {further.map(({ model, name, height_m }) => (
                <button
                  key={model}
                  type="button"
                  aria-pressed={placing && kind === model}
                  onClick={() => placeOnStage(model, name)}
                >
                  {name}
                  <span className="n">{COPY.ofHeight(height_m)}</span>
                </button>
              ))}
            </div>
          ) : null}
          {busy === null ? (
            <ChooseFiles label={COPY.chooseFurther} button={COPY.bringFurther} onFiles={(files) => void bring(files)} />
          ) : (
            <span role="status">{busy}</span>
          )}
        </>
      ) : null}
      {listOpen && part ? (
        <div className="row scatter">
          <span className="note">{COPY.scatter(entry.name, part.name)}</span>
          <NumberField
            label={COPY.scatterCount}
            min={1}
            max={MOST_PIECES}
            value={count}
            onChange={(n) => setCount(Math.round(n))}
          />
          <button type="button" className="lk act" onClick={scatter}>
            {COPY.scatterHere}
          </button>
        </div>
      ) : listOpen ? (
        <p className="note">{COPY.scatterFirst}</p>
      ) : null}
      <ul className="tree">
        {groupPieces(placed).map(({ name, model, at }) => (
          <li key={`${model} ${name}`}>
            <button
              type="button"
              className="name"
              aria-pressed={chosen !== null && at.includes(chosen)}
              onClick={() => setChosen(chosen === at[0] ? null : at[0]!)}
            >
              {name}
            </button>
            {at.length > 1 ? (
              <button type="button" className="lk act" onClick={() => takeOut(at)}>
                {COPY.takeAllOut(at.length)}
              </button>
            ) : null}
          </li>
        ))}
      </ul>
      {piece ? (
        <div className="part">
          <Words
            label={COPY.inPictureOf(piece.name)}
            value={piece.seen}
            options={SEEN_WORDS}
            onChoose={(seen) => set({ seen })}
          />
          <div className="xyz">
            <AxisNames />
            <XyzFields
              name={COPY.position}
              labels={COPY.moves.map((label) => `${COPY.position}: ${label}`)}
              unit="mm"
              min={-FAR_MM}
              max={FAR_MM}
              value={piece.position_m.map((m) => Math.round(m * MM))}
              onChange={(axis, mm) => set({ position_m: withAxis(piece.position_m, axis, mm / MM) })}
            />
            <span className="lab">{COPY.turn}</span>
            <NumberField
              label={`${COPY.turn}: ${COPY.turns[1]}`}
              unit="°"
              min={-3600}
              max={3600}
              value={piece.turn_deg}
              onChange={(turn_deg) => set({ turn_deg })}
            />
            <span style={{ gridColumn: 'span 2' }} />
            <span className="lab">{COPY.scale}</span>
            <NumberField
              label={COPY.scale}
              unit="%"
              min={0.1}
              max={100_000}
              value={piece.scale * 100}
              onChange={(percent) => set({ scale: percent / 100 })}
            />
          </div>
          <div className="acts">
            <button type="button" className="lk act" onClick={() => moveOnStage(piece, chosen!)}>
              {COPY.moveOnStage}
            </button>
            <button type="button" className="lk act" onClick={() => placeOnStage(piece.model, piece.name)}>
              {COPY.another}
            </button>
            <button type="button" className="lk act" onClick={() => takeOut([chosen!])}>
              {COPY.takeOut}
            </button>
          </div>
        </div>
      ) : null}
    </div>
  );
}
