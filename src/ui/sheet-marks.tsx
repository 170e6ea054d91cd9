/**
 * Crop marks at the corners of a sheet and registration marks in the middle of its margins; in the units of the view
 * box.
 */
interface Props {
  width: number;
  height: number;
  /** Width of the margin round the picture. */
  margin: number;
  /** Registration marks: both for paper, the upper only for screens, none for small sheets. */
  registration: 'both' | 'top' | 'none';
}

const GAP = 0.22; // of the margin, between picture and mark
const REACH = 0.86;

export function SheetMarks({ width, height, margin, registration }: Props) {
  const lines: [number, number, number, number][] = [];
  for (const [x, dx] of [
    [margin, -1],
    [margin + width, 1]
  ] as const) {
    for (const [y, dy] of [
      [margin, -1],
      [margin + height, 1]
    ] as const) {
      lines.push(
        [x + dx * margin * GAP, y, x + dx * margin * REACH, y],
        [x, y + dy * margin * GAP, x, y + dy * margin * REACH]
      );
    }
  }
  const middle = margin + width / 2;
  const at = registration === 'both' ? [margin / 2, height + 1.5 * margin] : registration === 'top' ? [margin / 2] : [];
  const r = margin * 0.18;
  const arm = margin * 0.3;
  return (
    <svg className="marks" viewBox={`0 0 ${width + 2 * margin} ${height + 2 * margin}`} aria-hidden="true">
      {lines.map(([x1, y1, x2, y2]) => (
        <line key={`${x1},${y1},${x2},${y2}`} x1={x1} y1={y1} x2={x2} y2={y2} />
      ))}
      {at.map((y) => (
        <g key={y}>
          <circle cx={middle} cy={y} r={r} />
          <line x1={middle - arm} y1={y} x2={middle + arm} y2={y} />
          <line x1={middle} y1={y - arm} x2={middle} y2={y + arm} />
        </g>
      ))}
    </svg>
  );
}
