/** The proofs of the picture, newest first, with undo and redo and the files of the one on the stage. */
import { useRef } from 'react';
import type { PictureDto, ProofDto } from '../../contracts/dto';
import type { Brief } from '../../core/brief/brief';
import { isOpenBehind } from '../../core/brief/open-behind';
import { about } from '../../core/brief/sentence';
import { Ticket } from '../shared/ticket';
import { EDIT_COPY } from '../shared/edit-item';
import { spokenProgress } from './spoken';
import { FILES_COPY, STRIP_COPY } from './copy';
import { FINISH_COPY } from './finish/copy';
import { canFinish } from './finish/use-finishing';

interface Props {
  picture: PictureDto;
  brief: Brief;
  proofs: readonly ProofDto[];
  /** How many older ones there are. */
  earlier: number;
  onEarlier: () => void;
  /** On the stage. */
  shown: ProofDto | null;
  beforeDenoising: boolean;
  /** How long a Glance of this picture takes; null while it is not known. */
  glanceSeconds: number | null;
  onChoose: (id: string) => void;
  onStop: (proof: ProofDto, how: 'stop' | 'continue') => void;
  onRemove: (proof: ProofDto) => void;
  /** Takes the studio's paper away and keeps the shadow on it. */
  onWithoutPaper: () => void;
  onHistory: (by: -1 | 1) => void;
  filesOpen: boolean;
  /** Opens the panel of all kinds of files. */
  onFiles: () => void;
  finishOpen: boolean;
  /** Opens the film of the proof to be finished. */
  onFinish: () => void;
}

/** The files of a proof, each with its query. */
const filesOf = ({ brief }: ProofDto): readonly (readonly [label: string, query: string])[] => [
  ['PNG', 'kind=png'],
  ...(isOpenBehind(brief) ? [[STRIP_COPY.transparent, 'kind=png&background=clear'] as const] : []),
  ['JPEG', 'kind=jpg'],
  ['EXR', 'kind=exr']
];

/** A studio whose paper hides what lies behind: without it the shadow stays, and the picture can be transparent. */
const hasPaper = (brief: Brief): boolean => brief.surroundings.kind === 'studio' && !isOpenBehind(brief);

export function ProofStrip(props: Props) {
  const {
    picture,
    brief,
    proofs,
    earlier,
    onEarlier,
    shown,
    beforeDenoising,
    glanceSeconds,
    onChoose,
    onStop,
    onRemove,
    onWithoutPaper,
    onHistory,
    filesOpen,
    onFiles,
    finishOpen,
    onFinish
  } = props;
  // the proof that renders, and when it has ended still that one
  const live = proofs.find((p) => p.state === 'running') ?? proofs.find((p) => p.state === 'waiting');
  const watched = useRef<string | null>(null);
  if (live) watched.current = live.id;
  const followed = proofs.find((p) => p.id === watched.current);
  const spoken = followed ? spokenProgress(followed) : '';
  return (
    <section className="strip" aria-label="Proofs">
      <header>
        <span>{STRIP_COPY.count(proofs.length + earlier)}</span>
        <span>
          <button type="button" className="lk" aria-disabled={!picture.canUndo} onClick={() => onHistory(-1)}>
            {STRIP_COPY.undo}
          </button>
          <button type="button" className="lk" aria-disabled={!picture.canRedo} onClick={() => onHistory(1)}>
            {STRIP_COPY.redo}
          </button>
          {shown && shown.picture_count > 0 ? (
            <>
              <span>{STRIP_COPY.download(shown.number, beforeDenoising)}</span>
              {filesOf(shown).map(([label, query]) => (
                <a
                  key={label}
                  className="lk"
                  aria-current={query === `kind=${brief.seen.file}` ? 'true' : undefined}
                  download
                  href={`/api/proofs/${shown.id}/file?${query}${beforeDenoising ? '&raw' : ''}`}
                >
                  {label}
                </a>
              ))}
              <button type="button" className="lk" aria-pressed={filesOpen} onClick={onFiles}>
                {FILES_COPY.more}
              </button>
            </>
          ) : null}
          {canFinish(shown) ? (
            <button type="button" className="lk" aria-pressed={finishOpen} onClick={onFinish}>
              {FINISH_COPY.open}
            </button>
          ) : null}
          {shown && hasPaper(brief) ? (
            <button type="button" className="lk" title={STRIP_COPY.withoutPaperHint} onClick={onWithoutPaper}>
              {STRIP_COPY.withoutPaper}
            </button>
          ) : null}
          {shown?.state === 'done' ? (
            <button
              type="button"
              className="lk"
              aria-label={STRIP_COPY.remove(shown.number)}
              onClick={() => onRemove(shown)}
            >
              {EDIT_COPY.remove}
            </button>
          ) : null}
        </span>
      </header>
      {proofs.length === 0 ? (
        <p className="say">{STRIP_COPY.none(glanceSeconds === null ? null : about(glanceSeconds))}</p>
      ) : (
        <ol className="tks">
          {proofs.map((proof) => (
            <Ticket
              key={proof.id}
              proof={proof}
              chosen={proof.id === shown?.id}
              onChoose={() => onChoose(proof.id)}
              onStop={() => onStop(proof, 'stop')}
              onContinue={() => onStop(proof, 'continue')}
              onRemove={() => onRemove(proof)}
            />
          ))}
          {earlier > 0 ? (
            <li className="more">
              <button type="button" className="lk" onClick={onEarlier}>
                {STRIP_COPY.earlier(earlier)}
              </button>
            </li>
          ) : null}
        </ol>
      )}
      <span className="vh" role="status">
        {spoken}
      </span>
      {shown?.denoise_note ? (
        <p className="say">{STRIP_COPY.denoised(shown.denoise_share === 1, shown.denoise_note)}</p>
      ) : null}
      {shown?.state === 'failed' && shown.error ? <p className="say">{shown.error}</p> : null}
    </section>
  );
}
