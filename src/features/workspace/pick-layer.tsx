'use client';
/**
 * What lies over the stage while a panel asks for a place on it: pressed and dragged with a pointer, or chosen with a
 * crosshair that arrows move and Enter presses.
 */
import { type KeyboardEvent, type PointerEvent, type RefObject, useEffect, useRef, useState } from 'react';
import type { Patch } from '../../core/brief/brief';
import { useDrag } from '../../ui/use-drag';
import { colorAt, inPercent, rectBetween, rectIsLarge } from './picked-place';
import type { Picking } from './view';
import type { Viewport } from './raster/viewport';

interface Props {
  picking: Picking;
  viewport: RefObject<Viewport | null>;
  /** What is seen: the preview's picture or the proof's; null for the model. */
  seen: () => HTMLCanvasElement | HTMLImageElement | null;
  /** Of the picture, px: a smaller rectangle than a press is none. */
  width_px: number;
  height_px: number;
}

type Place = readonly [x: number, y: number];

// Shares of the picture that an arrow moves by, alone and with Shift.
const STEP = 0.01;
const LARGE_STEP = 0.1;
const ARROWS: Record<string, Place> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1]
};
const KEYS_SAY = 'Arrows move the crosshair, with Shift further; Enter presses; Escape ends.';

export function PickLayer({ picking, viewport, seen, width_px, height_px }: Props) {
  const layer = useRef<HTMLDivElement>(null);
  const from = useRef<Place>([0, 0]);
  const [rect, setRect] = useState<Patch | null>(null);
  /** Of the keyboard; null while a pointer is used. */
  const [cross, setCross] = useState<Place | null>(null);
  const [corner, setCorner] = useState<Place | null>(null);

  useEffect(() => {
    const before = document.activeElement as HTMLElement | null;
    const own = layer.current;
    own?.focus({ preventScroll: true });
    return () => {
      // where the question came from, unless the focus has gone elsewhere meanwhile
      if (document.activeElement === own || document.activeElement === document.body)
        before?.focus({ preventScroll: true });
    };
  }, []);

  const open = useRef(true);
  useEffect(() => {
    open.current = true;
    return () => {
      open.current = false;
    };
  }, []);
  const press = (place: Place, joins: boolean) => {
    const [x, y] = place;
    if (!joins) picking.onPlace?.(x, y);
    if (picking.onColor && !joins) {
      const picture = seen();
      picking.onColor(picture ? colorAt(picture, x, y) : null);
    }
    // a press while the model is still on its way counts when it is there, unless the question is gone
    if (!joins) viewport.current?.afterLoading(() => open.current && pressModel(place, false));
    else pressModel(place, true);
  };
  const pressModel = ([x, y]: Place, joins: boolean) => {
    const opening = picking.onOpening && !joins && viewport.current?.readings.pickOpening(x, y);
    if (opening) picking.onOpening!(opening);
    const part = picking.onPart && !joins ? viewport.current?.readings.pickPart(x, y) : null;
    if (part != null) picking.onPart!(part);
    const worn = picking.onMaterial && !joins ? viewport.current?.readings.pickMaterial(x, y) : null;
    if (worn) picking.onMaterial!(worn.material, worn.part);
    const found = picking.onPick && viewport.current?.readings.pick(x, y);
    if (found) picking.onPick!(found.point, found.normal, joins);
  };
  const finish = (drawn: Patch | null) => {
    setRect(null);
    setCorner(null);
    if (drawn && rectIsLarge(drawn, width_px, height_px)) picking.onRect?.(drawn);
  };
  const drag = useDrag<HTMLDivElement>(
    (event: PointerEvent<HTMLDivElement>, joins) => {
      const box = event.currentTarget.getBoundingClientRect();
      const at: Place = [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
      setCross(null);
      if (!joins) from.current = at;
      if (picking.onRect) setRect(rectBetween(from.current, at));
      picking.onDrag?.(at[0] - from.current[0], joins);
      press(at, joins);
    },
    () => finish(rect)
  );

  const onKeyDown = (event: KeyboardEvent) => {
    const arrow = ARROWS[event.key];
    const at = cross ?? [0.5, 0.5];
    if (arrow) {
      const step = event.shiftKey ? LARGE_STEP : STEP;
      const moved: Place = [within(at[0] + arrow[0] * step), within(at[1] + arrow[1] * step)];
      // a turn follows the arrows at once
      if (picking.onDrag) {
        if (!cross) picking.onDrag(0, false);
        picking.onDrag(moved[0] - 0.5, true);
      }
      if (corner) setRect(rectBetween(corner, moved));
      setCross(moved);
    } else if (event.key === 'Enter' || event.key === ' ') {
      setCross(at);
      if (!picking.onRect) press(at, false);
      else if (corner) finish(rect);
      else setCorner(at);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };

  return (
    <>
      <div
        ref={layer}
        className="pick"
        role="application"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: the crosshair is moved with keys
        tabIndex={0}
        aria-label={`${picking.says} ${KEYS_SAY}`}
        onKeyDown={onKeyDown}
        {...drag}
      />
      {cross ? (
        <span className="cross" style={{ left: `${100 * cross[0]}%`, top: `${100 * cross[1]}%` }} aria-hidden />
      ) : null}
      <span className="vh" aria-live="polite">
        {cross ? spokenPlace(cross, corner !== null) : ''}
      </span>
      {rect ? <div className="before" style={inPercent(rect)} /> : null}
    </>
  );
}

const within = (share: number) => Math.min(1, Math.max(0, share));
const spokenPlace = ([x, y]: Place, fromCorner: boolean): string =>
  `${fromCorner ? 'From the first corner to' : 'Crosshair at'} ${percent(x)} across, ${percent(y)} down`;
const percent = (share: number): string => `${Math.round(100 * share)} %`;
