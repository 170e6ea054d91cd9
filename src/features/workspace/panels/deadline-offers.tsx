/**
 * "I need it by five": what can be had until then, the best first, each with what it gives up and a piece of it as it
 * would be.
 */
import { useEffect, useState } from 'react';
import type { CropDto } from '../../../contracts/dto';
import { type Brief, canonicalJson } from '../../../core/brief/brief';
import { about } from '../../../core/brief/sentence';
import { QUALITY_STEPS } from '../../../core/catalogue/quality';
import { CROP_PX, tellingPlace } from '../../../core/forecast/crop';
import { givesUp, type Offer, offersWithin, secondsUntil, takeOffer } from '../../../core/forecast/deadline';
import { aspectOf } from '../../../core/output/fit-frame';
import { resolveSize } from '../../../core/output/size';
import { send } from '../../shared/send';
import type { ForecastState } from '../use-forecast';

interface Props {
  project: string;
  brief: Brief;
  forecast: ForecastState;
  onTake: (brief: Brief) => void;
}

// After the last letter of a time, and after a refusal because something renders.
const RESTS_MS = 700;
const AGAIN_MS = 5000;

export function DeadlineOffers({ project, brief, forecast, onTake }: Props) {
  const [text, setText] = useState('');
  const seconds = text.trim() === '' ? null : secondsUntil(text, new Date());
  const offers = seconds === null ? [] : offersWithin(seconds, brief, forecast.of);
  const crops = useCrops(project, forecast.stale ? [] : offers.map((offer) => takeOffer(brief, offer)), forecast);
  const { ppi } = resolveSize(brief.size);
  return (
    <div className="sec">
      <label className="row" style={{ alignItems: 'center' }}>
        <span className="lab">I need it by</span>
        <span className="fld" style={{ width: 150 }}>
          <input
            aria-label="I need it by"
            placeholder="17:00, or in 10 min"
            value={text}
            maxLength={20}
            onChange={(e) => setText(e.target.value)}
          />
        </span>
      </label>
      {text.trim() === '' ? null : seconds === null ? (
        <p className="note">Write an hour like 17:00, or a time like 10 min or 2 h.</p>
      ) : !forecast.now ? (
        <p className="note">The forecast is still being measured.</p>
      ) : offers.length === 0 ? (
        <p className="say">
          Nothing of this picture is ready in {about(seconds)}. Glance at a quarter of the size is the quickest there
          is.
        </p>
      ) : (
        <>
          <div className="list offers" role="group" aria-label="What fits by then">
            {offers.map((offer) => (
              <button
                key={`${offer.step} ${offer.scale}`}
                type="button"
                aria-pressed={brief.quality.step === offer.step && brief.quality.scale === offer.scale}
                onClick={() => onTake(takeOffer(brief, offer))}
              >
                <Piece crop={crops.get(cropKey(takeOffer(brief, offer))) ?? null} offer={offer} />
                <span className="two">
                  {QUALITY_STEPS[offer.step].name}, {offer.width_px} × {offer.height_px}
                  <span>{givesUp(offer, ppi)}</span>
                  <span>{about(offer.forecast.seconds)}</span>
                </span>
              </button>
            ))}
          </div>
          <p className="note">Each piece is {CROP_PX} px of the picture, from where the grain is strongest.</p>
        </>
      )}
    </div>
  );
}

function Piece({ crop, offer }: { crop: CropDto | string | null; offer: Offer }) {
  if (crop === null || typeof crop === 'string') return <span className="piece" title={crop ?? 'Being rendered'} />;
  const name = `${QUALITY_STEPS[offer.step].name} at ${offer.width_px} × ${offer.height_px}`;
  return (
    <img
      className="piece"
      src={crop.png}
      width={CROP_PX}
      height={CROP_PX}
      alt={`A piece of ${name}`}
      title={
        crop.whole
          ? `After ${Math.round(crop.samples)} samples, as it would be`
          : `After ${Math.round(crop.samples)} samples; it would be cleaner`
      }
    />
  );
}

const cropKey = (brief: Brief) => canonicalJson(brief);

/** Pieces of briefs by cropKey, one after the other; a sentence where there can be none. */
function useCrops(
  project: string,
  briefs: readonly Brief[],
  { probe }: ForecastState
): ReadonlyMap<string, CropDto | string> {
  const [crops, setCrops] = useState<ReadonlyMap<string, CropDto | string>>(new Map());
  const [tries, setTries] = useState(0);
  const next = briefs.find((b) => !crops.has(cropKey(b))) ?? null;
  const wanted = next && cropKey(next);
  useEffect(() => {
    if (!next || !probe || wanted === null) return;
    let left = false;
    let again: ReturnType<typeof setTimeout> | undefined;
    const rest = setTimeout(() => {
      void send<CropDto>('POST', `/api/projects/${project}/crop`, {
        brief: next,
        ...tellingPlace(probe, aspectOf(next.size))
      }).then((sent) => {
        if (!sent.ok && sent.code === 'busy') {
          if (!left) again = setTimeout(() => setTries((n) => n + 1), AGAIN_MS);
        } else setCrops((all) => new Map(all).set(wanted, sent.ok ? sent.value : sent.message));
      });
    }, RESTS_MS);
    return () => {
      left = true;
      clearTimeout(rest);
      clearTimeout(again);
    };
  }, [wanted, probe, project, tries]);
  return crops;
}
