/** The pictures of this project, as small sheets in their true proportions; below them what the model is. */
import type { PictureDto, PictureItemDto, WorkspaceDto } from '../../contracts/dto';
import type { Removed } from '../../core/catalogue/removable';
import { EditItem } from '../shared/edit-item';
import { sizeLabel } from '../../core/brief/sentence';
import { resolveSize } from '../../core/output/size';
import { Thumbnail } from '../shared/thumbnail';
import { PICTURES_COPY } from './copy';
import type { OpenPanel } from './view';

interface Props {
  workspace: WorkspaceDto;
  current: PictureDto;
  onChoose: (id: string) => void;
  onAdd: () => void;
  onRenamed: (name: string) => void;
  onRemoved: (removed: Removed) => void;
  /** One place up or down among the others. */
  onMove: (by: -1 | 1) => void;
  onMessage: (text: string | null) => void;
  open: OpenPanel;
  onOpen: (panel: 'model' | 'keys') => void;
}

const WIDEST = 106;
const TALLEST = 82;

export function Pictures(props: Props) {
  const { workspace, current, onChoose, onAdd, onRenamed, onRemoved, onMove, onMessage, open, onOpen } = props;
  const place = workspace.pictures.findIndex((p) => p.id === current.id);
  const { report, number } = workspace.revision;
  /** Its last proof is of an earlier revision, and the newest changed what is in its frame. */
  const showsOlder = ({ id, lead }: PictureItemDto) =>
    lead !== null && lead.revision < number && (report.compared?.pictures?.includes(id) ?? false);
  const underWay = workspace.pictures.reduce((sum, p) => sum + p.underWay, 0);
  const metres = (v: number) => (v < 1 ? `${Math.round(v * 1000)}\u00a0mm` : `${v.toFixed(v < 10 ? 2 : 1)}\u00a0m`);
  return (
    <nav className="pics" aria-label="Pictures of this project">
      <h2>Pictures</h2>
      <ul className="s">
        {workspace.pictures.map((picture) => {
          const size = resolveSize(picture.size);
          const aspect = size.width_px / size.height_px;
          const width = Math.min(WIDEST, TALLEST * aspect);
          const box = { width, height: width / aspect };
          return (
            <li key={picture.id}>
              <button
                type="button"
                className="pic"
                aria-current={picture.id === current.id || undefined}
                onClick={() => onChoose(picture.id)}
              >
                <span className={`t${picture.id === current.id ? ' cm' : ''}`}>
                  {picture.lead || picture.id !== current.id ? (
                    <Thumbnail lead={picture.lead} picture={picture.id} changes={picture.changes} style={box} />
                  ) : (
                    // the one in hand changes with each step: it is on the stage
                    <span className="blank" style={box} />
                  )}
                </span>
                <b>{picture.name}</b>
                <i>
                  {picture.underWay > 0
                    ? PICTURES_COPY.rendering
                    : showsOlder(picture)
                      ? PICTURES_COPY.older(picture.lead!.revision)
                      : sizeLabel(picture.size)}
                </i>
              </button>
            </li>
          );
        })}
      </ul>
      <button type="button" className="lk add" onClick={onAdd}>
        New picture from this one
      </button>
      {workspace.pictures.length > 1 ? (
        <p className="lk-row">
          <button
            type="button"
            className="lk"
            aria-label={PICTURES_COPY.move(current.name, -1)}
            aria-disabled={place === 0}
            onClick={() => place > 0 && onMove(-1)}
          >
            {PICTURES_COPY.up}
          </button>
          <button
            type="button"
            className="lk"
            aria-label={PICTURES_COPY.move(current.name, 1)}
            aria-disabled={place === workspace.pictures.length - 1}
            onClick={() => place < workspace.pictures.length - 1 && onMove(1)}
          >
            {PICTURES_COPY.down}
          </button>
        </p>
      ) : null}
      <EditItem
        key={current.id}
        kind="picture"
        id={current.id}
        name={current.name}
        onRenamed={onRenamed}
        onRemoved={onRemoved}
        onMessage={onMessage}
      />
      <div className="nav">
        <dl>
          <dt>
            <button type="button" className="lk" aria-expanded={open === 'model'} onClick={() => onOpen('model')}>
              Model
            </button>
          </dt>
          <dd>revision {number}</dd>
          <dt>Size</dt>
          <dd className="n">{metres(Math.max(...report.size_m))}</dd>
          <dt>Triangles</dt>
          <dd className="n">{report.triangles.toLocaleString('en')}</dd>
          <dt>Queue</dt>
          <dd>{PICTURES_COPY.queue(underWay)}</dd>
          <dt>
            <button type="button" className="lk" aria-expanded={open === 'keys'} onClick={() => onOpen('keys')}>
              {PICTURES_COPY.keys}
            </button>
          </dt>
          <dd>{PICTURES_COPY.keysShown}</dd>
        </dl>
      </div>
    </nav>
  );
}
