/** The brief line: one true sentence whose underlined words open panels, and the button that renders. */
import type { ProofDto } from '../../contracts/dto';
import { about, duration, type PanelKey, type SentencePart } from '../../core/brief/sentence';
import type { Forecast } from '../../core/forecast/forecast';
import { RenderSlip } from '../../ui/render-slip';
import type { OpenPanel } from './view';

interface Props {
  sentence: SentencePart[];
  open: OpenPanel;
  onOpen: (panel: PanelKey) => void;
  forecast: Forecast | null;
  /** The proof that is this very film already. */
  twin: ProofDto | null;
  /** The proof whose film it needs: only its finish is another. */
  film: ProofDto | null;
  message: string | null;
  onDismiss: () => void;
  onRender: () => void;
}

const clock = (ms: number) => new Date(ms).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });

export function BriefLine({ sentence, open, onOpen, forecast, twin, film, message, onDismiss, onRender }: Props) {
  const end = twin
    ? twin.state === 'done'
      ? `: proof ${twin.number} is this very picture.`
      : `: proof ${twin.number} is under way.`
    : film
      ? `: from proof ${film.number}, without a new render.`
      : forecast
        ? ': ready in about '
        : '.';
  const stub = twin
    ? twin.state === 'done'
      ? `${twin.number} is up to date`
      : `${twin.number} is rendering`
    : film
      ? `of proof ${film.number}`
      : forecast
        ? `ready ${clock(Date.now() + forecast.seconds * 1000)}`
        : undefined;
  return (
    <div className="brief">
      <div>
        <p>
          {sentence.map((part, i) =>
            'text' in part ? (
              part.text
            ) : (
              // a button cannot break across lines, a link can
              <a
                key={i}
                className={`w${part.changed ? ' ch' : ''}`}
                role="button"
                href={`#${part.panel}`}
                aria-expanded={open === part.panel}
                onClick={(e) => {
                  e.preventDefault();
                  onOpen(part.panel);
                }}
                onKeyDown={(e) => {
                  if (e.key !== ' ') return;
                  e.preventDefault();
                  onOpen(part.panel);
                }}
              >
                {part.word}
              </a>
            )
          )}
          {end}
          {!twin && !film && forecast ? (
            <span className="n" title={`Between ${duration(forecast.low)} and ${duration(forecast.high)}`}>
              {about(forecast.seconds)}.
            </span>
          ) : null}{' '}
          <RenderSlip label={film ? 'Finish' : 'Render'} stub={stub} disabled={twin !== null} onPress={onRender} />
        </p>
        {message ? (
          <p className="err" role="alert">
            {message[0]!.toUpperCase() + message.slice(1)}.{' '}
            <button type="button" className="lk" onClick={onDismiss}>
              Understood
            </button>
          </p>
        ) : null}
      </div>
    </div>
  );
}
