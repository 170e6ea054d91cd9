import { describe, expect, it } from 'vitest';
import type { ChangedPictureDto } from '../../contracts/dto';
import { BRIEF_DEFAULTS, type Brief } from '../../core/brief/brief';
import type { Sent } from '../shared/send';
import { BriefSaver } from './brief-saver';

const withSamples = (samples: number): Brief => ({
  ...BRIEF_DEFAULTS,
  quality: { ...BRIEF_DEFAULTS.quality, samples }
});

const FROM = withSamples(1);

/** A server that answers when it is told to, and what was sent to it: "a 50", "a 50 joins", "a back". */
function server() {
  const sent: string[] = [];
  const saved: number[] = [];
  const bases: number[] = [];
  const overridden: string[] = [];
  const slownesses: boolean[] = [];
  const messages: (string | null)[] = [];
  const waiting: ((answer: Sent<ChangedPictureDto>) => void)[] = [];
  const request = (what: string) => {
    sent.push(what);
    return new Promise<Sent<ChangedPictureDto>>((resolve) => waiting.push(resolve));
  };
  let idle = 0;
  const saver = new BriefSaver(
    {
      save: (id, { quality }, from, joins) => {
        bases.push(from.quality.samples);
        return request(`${id} ${quality.samples}${joins ? ' joins' : ''}`);
      },
      step: (id, by) => request(`${id} ${by < 0 ? 'back' : 'forward'}`),
      onSaved: ({ changes }) => saved.push(changes),
      onMessage: (text) => messages.push(text),
      onOverridden: (labels) => overridden.push(...labels),
      onSlow: (slow) => slownesses.push(slow),
      onIdle: () => idle++
    },
    1
  );
  const answer = async (
    with_: Sent<ChangedPictureDto> = {
      ok: true,
      value: { changes: sent.length, overridden: [] as string[] } as ChangedPictureDto
    }
  ) => {
    waiting.shift()!(with_);
    await new Promise((resolve) => setTimeout(resolve));
  };
  return { saver, sent, saved, bases, overridden, slownesses, messages, answer, idle: () => idle };
}

describe('BriefSaver', () => {
  it('sends what waits at once when its page is left', async () => {
    const { saver, sent } = server();
    saver.change('a', withSamples(50), FROM, false);
    saver.change('a', withSamples(51), FROM, false);
    saver.change('b', withSamples(7), FROM, false);
    expect(sent).toEqual(['a 50']);
    saver.leave();
    expect(sent).toEqual(['a 50', 'a 51', 'b 7']);
    saver.leave();
    expect(sent).toHaveLength(3);
  });
  it('sends one request at a time and only the newest change of a drag', async () => {
    const { saver, sent, saved, answer, idle } = server();
    saver.change('a', withSamples(50), FROM, false);
    saver.change('a', withSamples(51), FROM, true);
    saver.change('a', withSamples(52), FROM, true);
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
    saver.change('a', withSamples(50), FROM, false);
    saver.change('a', withSamples(60), FROM, false);
    saver.change('a', withSamples(61), FROM, true);
    await answer();
    expect(sent).toEqual(['a 50', 'a 61']);
  });

  it('keeps changes of another picture and steps of the history in their order', async () => {
    const { saver, sent, answer } = server();
    saver.change('a', withSamples(50), FROM, false);
    saver.change('a', withSamples(51), FROM, false);
    saver.step('a', -1);
    saver.change('b', withSamples(70), FROM, false);
    for (let i = 0; i < 4; i++) await answer();
    expect(sent).toEqual(['a 50', 'a 51', 'a back', 'b 70']);
  });

  it('says why a change was refused and goes on with the next', async () => {
    const { saver, sent, saved, messages, answer } = server();
    saver.change('a', withSamples(50), FROM, false);
    saver.change('a', withSamples(60), FROM, false);
    await answer({ ok: false, message: 'too many samples' });
    await answer();
    expect(sent).toHaveLength(2);
    expect(messages).toEqual(['too many samples', null]);
    expect(saved).toEqual([2]);
  });

  it('is settled when the newest change has been answered, not before', async () => {
    const { saver, answer } = server();
    await saver.settled();
    saver.change('a', withSamples(50), FROM, false);
    saver.change('a', withSamples(60), FROM, false);
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

  it('sends with a change what it was a change of, for a waiting one the brief before the first that it stands for', async () => {
    const { saver, bases, answer } = server();
    saver.change('a', withSamples(50), FROM, false);
    saver.change('a', withSamples(60), withSamples(50), false);
    saver.change('a', withSamples(70), withSamples(60), false);
    await answer();
    await answer();
    expect(bases).toEqual([1, 50]);
  });

  it('tells which fields another window had changed too', async () => {
    const { saver, overridden, answer } = server();
    saver.change('a', withSamples(50), FROM, false);
    await answer({ ok: true, value: { changes: 1, overridden: ['Samples'] } as unknown as ChangedPictureDto });
    expect(overridden).toEqual(['Samples']);
  });

  it('sends a change again until somebody answers, and says meanwhile that it is not saved', async () => {
    const { saver, sent, saved, slownesses, messages, answer } = server();
    saver.change('a', withSamples(50), FROM, false);
    const away = { ok: false, code: 'unreachable', message: 'nobody answers' } as const;
    for (let i = 0; i < 2; i++) {
      await answer(away);
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    expect([sent.length, saved.length, slownesses.at(-1)]).toEqual([3, 0, true]);
    await answer();
    expect([saved.length, slownesses.at(-1), messages]).toEqual([1, false, [null]]);
  });

  it('does not take a step of the history twice', async () => {
    const { saver, sent, messages, answer } = server();
    saver.step('a', -1);
    await answer({ ok: false, code: 'unreachable', message: 'nobody answers' });
    expect([sent, messages]).toEqual([['a back'], ['nobody answers']]);
  });

  it('sends again after it was idle', async () => {
    const { saver, sent, answer, idle } = server();
    saver.change('a', withSamples(50), FROM, false);
    await answer();
    saver.step('a', 1);
    await answer();
    expect(sent).toEqual(['a 50', 'a forward']);
    expect(idle()).toBe(2);
  });
});
