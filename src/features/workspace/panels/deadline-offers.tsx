/** "I need it by five": what can be had until then, the best first, each with what it gives up. */
import { useState } from 'react';
import type { Brief } from '../../../core/brief/brief';
import { about } from '../../../core/brief/sentence';
import { QUALITY_STEPS } from '../../../core/catalogue/quality';
import { givesUp, type Offer, offersWithin, secondsUntil } from '../../../core/forecast/deadline';
import { resolveSize } from '../../../core/output/size';
import type { ForecastState } from '../use-forecast';

interface Props {
  brief: Brief;
  forecast: ForecastState;
  onTake: (offer: Offer) => void;
}

export function DeadlineOffers({ brief, forecast, onTake }: Props) {
  const [text, setText] = useState('');
  const seconds = text.trim() === '' ? null : secondsUntil(text, new Date());
  const sheet = resolveSize(brief.size);
  const offers = seconds === null ? [] : offersWithin(seconds, sheet, brief.finish.denoise > 0, forecast.of);
  return (
    <div className="sec">
      <label className="row" style={{ alignItems: 'center' }}>
        <span className="lab">I need it by</span>
        <span className="fld" style={{ width: 150 }}>
          <input aria-label="I need it by" placeholder="17:00, or in 10 min" value={text} maxLength={20} onChange={(e) => setText(e.target.value)} />
        </span>
      </label>
      {text.trim() === '' ? null : seconds === null ? (
        <p className="note">Write an hour like 17:00, or a time like 10 min or 2 h.</p>
      ) : !forecast.now ? (
        <p className="note">The forecast is still being measured.</p>
      ) : offers.length === 0 ? (
        <p className="say">Nothing of this picture is ready in {about(seconds)}. Glance at a quarter of the size is the quickest there is.</p>
      ) : (
        <div className="list" role="group" aria-label="What can be had until then">
          {offers.map((offer) => (
            <button key={`${offer.step} ${offer.scale}`} type="button" aria-pressed={brief.quality.step === offer.step && brief.quality.scale === offer.scale} onClick={() => onTake(offer)}>
              <span className="two" style={{ padding: '5px 0' }}>
                {QUALITY_STEPS[offer.step].name}, {offer.width_px} × {offer.height_px}
                <span>{givesUp(offer, sheet.ppi)}</span>
              </span>
              <span className="n">{about(offer.forecast.seconds)}</span>
            </button>
          ))}
        </div>
      )}
    </div>
  );
}
