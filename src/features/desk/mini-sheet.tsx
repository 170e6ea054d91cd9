/** A project's lead picture on the mat: paper with its margin, or a screen picture with its marks. */
import type { DeskProjectDto } from '../../contracts/dto';
import { SheetMarks } from '../../ui/sheet-marks';
import { Thumbnail } from '../shared/thumbnail';
import { sheetGeometry } from '../shared/sheet-geometry';

const LARGEST = { width: 352, height: 238 };
const PAPER_MARGIN_PX = 14;

export function MiniSheet({ project }: { project: DeskProjectDto }) {
  const g = sheetGeometry(project.size);
  const margin = g.paper ? PAPER_MARGIN_PX : 0;
  const aspect = g.width / g.height;
  let height = Math.min(g.paper ? 201 : 198, (LARGEST.width - 2 * margin) / aspect);
  if (aspect < 1) height = LARGEST.height - 2 * margin;
  const width = height * aspect;
  const marks = g.paper ? PAPER_MARGIN_PX : 16;
  const box = { left: margin, top: margin, width, height };
  return (
    <span className={`mini${g.paper ? ' pap' : ''}`} style={{ width: width + 2 * margin, height: height + 2 * margin }}>
      <Thumbnail lead={project.lead} picture={project.first.id} changes={project.first.changes} style={box} />
      <span
        className="mini-marks"
        style={{ left: margin - marks, top: margin - marks, width: width + 2 * marks, height: height + 2 * marks }}
      >
        <SheetMarks width={width} height={height} margin={marks} registration={g.paper ? 'both' : 'none'} />
      </span>
      {project.running ? (
        <span
          className="bar"
          role="progressbar"
          aria-valuenow={Math.floor(project.running.share * 100)}
          aria-label={project.name}
        >
          <i style={{ width: `${project.running.share * 100}%` }} />
        </span>
      ) : null}
    </span>
  );
}
