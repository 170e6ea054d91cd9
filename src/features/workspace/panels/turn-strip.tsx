/** A captured image as a strip: what lies straight ahead is in its middle; dragging turns the image. */
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import { wrapDegrees } from '../../../core/math/bearing';
import { sliderValue } from '../../../ui/slider-keys';
import { useDrag } from '../../../ui/use-drag';

interface Props {
  src: string;
  rotationDeg: number;
  view: FreeViewpoint;
  onTurn: (degrees: number, joins: boolean) => void;
}

const STEP_DEG = 1;
/** Of a turn, within one round and in tenths. */
export const tenths = (degrees: number): number => Math.round(wrapDegrees(degrees) * 10) / 10;

export function TurnStrip({ src, rotationDeg, view, onTurn }: Props) {
  // where a drag began, and whether it has turned anything yet: its first turn is a change by itself
  const start = useRef({ x: 0, rotation: 0, turned: false });
  // the image's column that is seen straight ahead: see kernel/assembly/surroundings.ts
  const ahead =
    Math.atan2(view.target_m[2] - view.position_m[2], view.target_m[0] - view.position_m[0]) / (2 * Math.PI) +
    rotationDeg / 360 +
    0.5;
  const drag = useDrag<HTMLDivElement>((event: PointerEvent<HTMLDivElement>, joins) => {
    if (!joins) {
      start.current = { x: event.clientX, rotation: rotationDeg, turned: false };
      return;
    }
    onTurn(
      tenths(start.current.rotation - (360 * (event.clientX - start.current.x)) / event.currentTarget.clientWidth),
      start.current.turned
    );
    start.current.turned = true;
  });
  const keys = (event: KeyboardEvent) => {
    const next = sliderValue(event, { value: rotationDeg, min: -180, max: 180, step: STEP_DEG });
    if (next === null) return;
    event.preventDefault();
    onTurn(tenths(next), false);
  };
  return (
    <div
      className="turnstrip"
      role="slider"
      tabIndex={0}
      aria-label="Turn the image"
      aria-valuemin={-180}
      aria-valuemax={180}
      aria-valuenow={Math.round(rotationDeg)}
      aria-valuetext={`${Math.round(rotationDeg)}°`}
      title="Drag to turn; what lies straight ahead is in the middle"
      // a background that repeats has no end to come to
      style={{ backgroundImage: `url(${src})`, backgroundPositionX: `calc(${(50 - 100 * ahead).toFixed(3)} * 1cqw)` }}
      onKeyDown={keys}
      {...drag}
    />
  );
}
