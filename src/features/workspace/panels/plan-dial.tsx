/**
 * The plan, seen from above: the model as it stands, the camera's wedge, and what can be turned: north for a sky, the
 * lights else. Drag round the ring; arrows turn by a degree, with Shift by ten. Angles in degrees, counterclockwise
 * from the model's up (-Z).
 */
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import type { Surroundings } from '../../../core/brief/brief';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import { skyLights } from '../../../core/lights/sky/sky-lights';
import { bearingOf, wrapDegrees } from '../../../core/math/bearing';
import { subtract } from '../../../core/math/vec3';
import type { ImportReport } from '../../../formats/model/import-report';
import { NumberField } from '../../../ui/number-field';
import { PLAN_COPY } from '../copy';
import { sliderValue } from '../../../ui/slider-keys';
import { useDrag } from '../../../ui/use-drag';

interface Props {
  report: ImportReport;
  view: FreeViewpoint;
  surroundings: Exclude<Surroundings, { kind: 'even' }>;
  onTurn: (degrees: number, joins: boolean) => void;
}

const wrap = (angle: number) => Math.round(wrapDegrees(angle));

export function PlanDial({ report, view, surroundings, onTurn }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const sky = surroundings.kind === 'sky' ? surroundings : null;
  const angle = sky ? sky.north_deg : (surroundings as { rotation_deg: number }).rotation_deg;
  // the plan's frame: x to the right, -z up; a counterclockwise angle from up
  const at = (degrees: number, radius: number): [number, number] => [
    58 - Math.sin((degrees * Math.PI) / 180) * radius,
    58 - Math.cos((degrees * Math.PI) / 180) * radius
  ];
  const fromEvent = (e: PointerEvent) => {
    const box = svg.current!.getBoundingClientRect();
    const x = ((e.clientX - box.left) / box.width) * 116 - 58;
    const y = ((e.clientY - box.top) / box.height) * 116 - 58;
    return wrap(bearingOf([x, 0, y]));
  };
  const drag = useDrag<SVGSVGElement>((e, joins) => onTurn(fromEvent(e), joins));
  const keys = (e: KeyboardEvent) => {
    const next = sliderValue(e, { value: angle, min: -180, max: 180, step: 1 });
    if (next === null) return;
    e.preventDefault();
    onTurn(wrap(next), false);
  };
  const [width, , depth] = report.size_m;
  const k = 24 / Math.max(width, depth, 1e-6);
  const heading = bearingOf(subtract(view.target_m, view.position_m));
  const half = (Math.atan((view.sensor_height_mm * 1.4) / (2 * view.focal_length_mm)) * 180) / Math.PI;
  const eye = at(heading + 180, 30);
  const wedge = [heading + half, heading - half].map((a) => [
    eye[0] - Math.sin((a * Math.PI) / 180) * 26,
    eye[1] - Math.cos((a * Math.PI) / 180) * 26
  ]);
  const sun = sky ? skyLights(sky).sun : null;
  const sunAt = sun ? at(bearingOf(sun.direction), 46) : null;
  const pointer = at(angle, 47);
  return (
    <div style={{ display: 'grid', gridTemplateColumns: '116px 1fr', gap: 22, alignItems: 'center' }}>
      <svg
        ref={svg}
        className="scale dial"
        viewBox="0 0 116 116"
        width="116"
        height="116"
        role="slider"
        tabIndex={0}
        aria-label={sky ? 'North' : 'Turn'}
        aria-valuemin={-180}
        aria-valuemax={180}
        aria-valuenow={angle}
        aria-valuetext={`${Math.abs(angle)}° ${angle >= 0 ? 'left' : 'right'} of up`}
        style={{ touchAction: 'none', cursor: 'grab' }}
        onKeyDown={keys}
        {...drag}
      >
        <rect width="116" height="116" fill="transparent" />
        <circle className="ring" cx="58" cy="58" r="47" />
        {Array.from({ length: 36 }, (_, i) => {
          const [x1, y1] = at(i * 10 + angle, 47);
          const [x2, y2] = at(i * 10 + angle, i % 9 === 0 ? 40 : 43.5);
          return <line key={i} className="tick" style={{ shapeRendering: 'auto' }} x1={x1} y1={y1} x2={x2} y2={y2} />;
        })}
        <rect
          className="plan"
          x={58 - (width * k) / 2}
          y={58 - (depth * k) / 2}
          width={Math.max(2, width * k)}
          height={Math.max(2, depth * k)}
        />
        <path className="wedge" d={`M${wedge[0]!.join(' ')}L${eye.join(' ')}L${wedge[1]!.join(' ')}`} />
        {sunAt && sun!.elevation > 0 ? <circle className="sun" cx={sunAt[0]} cy={sunAt[1]} r="5" /> : null}
        <path
          className="north"
          transform={`translate(${pointer[0]} ${pointer[1]}) rotate(${-angle})`}
          d="M0-6l4.5 9h-9z"
        />
      </svg>
      <div style={{ display: 'grid', gap: 12 }}>
        <label>
          <span className="lab">{sky ? PLAN_COPY.north : PLAN_COPY.rotation}</span>
          <NumberField
            label={sky ? PLAN_COPY.north : PLAN_COPY.rotation}
            value={angle}
            min={-360}
            max={360}
            unit="°"
            onChange={(d) => onTurn(wrap(d), false)}
          />
        </label>
        <span className="note">{sky ? PLAN_COPY.dragNorth : PLAN_COPY.dragLight}</span>
      </div>
    </div>
  );
}
