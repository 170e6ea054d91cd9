/** The brief line: one true sentence whose underlined words open panels, and the button that renders. */
import { Fragment } from 'react';
import type { ProofDto } from '../../contracts/dto';
import { about, duration, type PanelKey, type SentencePart } from '../../core/brief/sentence';
import type { Ahead } from '../../core/forecast/ahead';
import type { Forecast } from '../../core/forecast/forecast';
import { when } from '../shared/when';
import type { Removed } from '../../core/catalogue/removable';
import { EDIT_COPY } from '../shared/edit-item';
import { RenderSlip } from '../../ui/render-slip';
import { BRIEF_LINE_COPY } from './copy';
import { PANELS } from './panels/catalogue';
import type { OpenPanel } from './view';

interface Props {
  sentence: SentencePart[];
  /** Panels that no word of the sentence opens. */
  resting: readonly { panel: PanelKey; changed: boolean }[];
  open: OpenPanel;
  onOpen: (panel: PanelKey) => void;
  forecast: Forecast | null;
  /** What it waits for. */
  ahead: Ahead;
  /** Why it is asked before it begins; null when it need not be. */
  asks: string | null;
  onAsked: (yes: boolean) => void;
  /** The proof that already shows this brief. */
  identicalProof: ProofDto | null;
  /** The proof whose film it needs; only the finish differs. */
  film: ProofDto | null;
  message: string | null;
  removed: Removed | null;
  onUndoRemoval: () => void;
  onDismiss: () => void;
  onRender: () => void;
}

export function BriefLine({
  sentence,
  resting,
  open,
  onOpen,
  forecast,
  ahead,
  asks,
  onAsked,
  identicalProof,
  film,
  message,
  removed,
  onUndoRemoval,
  onDismiss,
  onRender
}: Props) {
  const end = identicalProof
    ? BRIEF_LINE_COPY.shownBy(identicalProof)
    : film
      ? BRIEF_LINE_COPY.fromFilm(film.number)
      : forecast
        ? BRIEF_LINE_COPY.readyIn
        : '.';
  const stub = identicalProof
    ? BRIEF_LINE_COPY.stubOf(identicalProof)
    : film
      ? BRIEF_LINE_COPY.stubOfFilm(film.number)
      : forecast
        ? BRIEF_LINE_COPY.readyAt(when(Date.now() + (ahead.seconds + forecast.seconds) * 1000), ahead.unknown > 0)
        : undefined;
  return (
    <div className="brief">
      <div>
        <p>
          {sentence.map((part, i) =>
            'text' in part ? (
              part.text
            ) : (
              <PanelLink key={i} panel={part.panel} changed={part.changed} open={open === part.panel} onOpen={onOpen}>
                {part.word}
              </PanelLink>
            )
          )}
          {end}
          {!identicalProof && !film && forecast ? (
            <span className="n" title={BRIEF_LINE_COPY.between(duration(forecast.low), duration(forecast.high))}>
              {about(ahead.seconds + forecast.seconds)}
              {ahead.proofs > 0 ? BRIEF_LINE_COPY.after(ahead.proofs) : ''}.
            </span>
          ) : null}{' '}
          <RenderSlip
            label={film ? BRIEF_LINE_COPY.finish : BRIEF_LINE_COPY.render}
            stub={stub}
            disabled={identicalProof !== null}
            onPress={onRender}
          />
          {resting.length > 0 ? (
            <span className="resting">
              {BRIEF_LINE_COPY.resting}{' '}
              {resting.map(({ panel, changed }, i) => (
                <Fragment key={panel}>
                  {i > 0 ? ', ' : ''}
                  <PanelLink panel={panel} changed={changed} open={open === panel} onOpen={onOpen}>
                    {PANELS[panel].title.toLowerCase()}
                  </PanelLink>
                </Fragment>
              ))}
            </span>
          ) : null}
        </p>
        {asks ? (
          <p className="say" role="alert">
            {asks}{' '}
            <button type="button" className="lk" onClick={() => onAsked(true)}>
              {BRIEF_LINE_COPY.renderAnyway}
            </button>{' '}
            <button type="button" className="lk" onClick={() => onAsked(false)}>
              {BRIEF_LINE_COPY.notNow}
            </button>
          </p>
        ) : null}
        {message ? (
          <p className="err" role="alert">
            {message[0]!.toUpperCase() + message.slice(1)}.{' '}
            <button type="button" className="lk" onClick={onDismiss}>
              {BRIEF_LINE_COPY.dismiss}
            </button>
          </p>
        ) : null}
        {removed ? (
          <p className="say" role="status">
            {EDIT_COPY.removed(removed.name)}{' '}
            <button type="button" className="lk" onClick={onUndoRemoval}>
              {EDIT_COPY.undo}
            </button>{' '}
            <button type="button" className="lk" onClick={onDismiss}>
              {BRIEF_LINE_COPY.dismiss}
            </button>
          </p>
        ) : null}
      </div>
    </div>
  );
}

interface PanelLinkProps {
  panel: PanelKey;
  changed: boolean;
  open: boolean;
  onOpen: (panel: PanelKey) => void;
  children: string;
}

/** A word that opens a panel. It is a link because a button cannot break across lines. */
function PanelLink({ panel, changed, open, onOpen, children }: PanelLinkProps) {
  return (
    <a
      className={`w${changed ? ' ch' : ''}`}
      role="button"
      href={`#${panel}`}
      aria-expanded={open}
      aria-label={changed ? BRIEF_LINE_COPY.changed(children) : undefined}
      onClick={(e) => {
        e.preventDefault();
        onOpen(panel);
      }}
      onKeyDown={(e) => {
        if (e.key !== ' ') return;
        e.preventDefault();
        onOpen(panel);
      }}
    >
      {children}
    </a>
  );
}
