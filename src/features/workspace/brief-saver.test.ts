import { describe, expect, it } from 'vitest';
import type { PictureDto } from '../../contracts/dto';
import { BRIEF_DEFAULTS, type Brief } from '../../core/brief/brief';
import type { Sent } from '../shared/send';
import { BriefSaver } from './brief-saver';

const withSamples = (samples: number): Brief => ({
  ...BRIEF_DEFAULTS,
  quality: { ...BRIEF_DEFAULTS.quality, samples }
});

/** A server that answers when it is told to, and what was sent to it: "a 50", "a 50 joins", "a back". */
function server() {
  const sent: string[] = [];
  const saved: number[] = [];
  const messages: (string | null)[] = [];
  const waiting: ((answer: Sent<PictureDto>) => void)[] = [];
  const request = (what: string) => {
    sent.push(what);
    return new Promise<Sent<PictureDto>>((resolve) => waiting.push(resolve));
  };
  let idle = 0;
  const saver = new BriefSaver({
    save: (id, { quality }, joins) => request(`${id} ${quality.samples}${joins ? ' joins' : ''}`),
    step: (id, by) => request(`${id} ${by < 0 ? 'back' : 'forward'}`),
    onSaved: ({ changes }) => saved.push(changes),
    onMessage: (text) => messages.push(text),
    onIdle: () => idle++
  });
  const answer = async (with_: Sent<PictureDto> = { ok: true, value: { changes: sent.length } as PictureDto }) => {
    waiting.shift()!(with_);
    await new Promise((resolve) => setTimeout(resolve));
  };
  return { saver, sent, saved, messages, answer, idle: () => idle };
}

describe('BriefSaver', () => {
  it('sends one request at a time and only the newest change of a drag', async () => {
    const { saver, sent, saved, answer, idle } = server();
    saver.change('a', withSamples(50), false);
    saver.change('a', withSamples(51), true);
    saver.change('a', withSamples(52), true);
    expect(sent).toEqual(['a 50']);
    expect(saver.busy).toBe(true);
    await answer();
    expect(sent).toEqual(['a 50', 'a 52 joins']);
    expect(saved).toEqual([]);
    await answer();
    expect(saved).toEqual([2]);
    expect([saver.busy, idle()]).toEqual([false, 1]);
  });

  it('does not lose the first change of a drag to those that join it', async () => {
    const { saver, sent, answer } = server();
    saver.change('a', withSamples(50), false);
    saver.change('a', withSamples(60), false);
    saver.change('a', withSamples(61), true);
    await answer();
    expect(sent).toEqual(['a 50', 'a 61']);
  });

  it('keeps changes of another picture and steps of the history in their order', async () => {
    const { saver, sent, answer } = server();
    saver.change('a', withSamples(50), false);
    saver.change('a', withSamples(51), false);
    saver.step('a', -1);
    saver.change('b', withSamples(70), false);
    for (let i = 0; i < 4; i++) await answer();
    expect(sent).toEqual(['a 50', 'a 51', 'a back', 'b 70']);
  });

  it('says why a change was refused and goes on with the next', async () => {
    const { saver, sent, saved, messages, answer } = server();
    saver.change('a', withSamples(50), false);
    saver.change('a', withSamples(60), false);
    await answer({ ok: false, message: 'too many samples' });
    await answer();
    expect(sent).toHaveLength(2);
    expect(messages).toEqual(['too many samples', null]);
    expect(saved).toEqual([2]);
  });

  it('is settled when the newest change has been answered, not before', async () => {
    const { saver, answer } = server();
    await saver.settled();
    saver.change('a', withSamples(50), false);
    saver.change('a', withSamples(60), false);
    let settled = false;
    const waiting = saver.settled().then(() => {
      settled = true;
    });
    await answer();
    expect(settled).toBe(false);
    await answer();
    await waiting;
    expect(settled).toBe(true);
  });

  it('sends again after it was idle', async () => {
    const { saver, sent, answer, idle } = server();
    saver.change('a', withSamples(50), false);
    await answer();
    saver.step('a', 1);
    await answer();
    expect(sent).toEqual(['a 50', 'a forward']);
    expect(idle()).toBe(2);
  });
});
