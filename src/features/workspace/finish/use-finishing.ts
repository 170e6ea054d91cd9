'use client';
/**
 * The film of the proof on the stage, developed at once each time that the finish changes: a draft while something moves,
 * the whole when it rests.
 */
import { useEffect, useRef, useState } from 'react';
import type { ProofDto } from '../../../contracts/dto';
import { BRIEF_DEFAULTS, canonicalJson, developKey, type Finish } from '../../../core/brief/brief';
import type { Histogram, StageLevel } from '../../../core/finishing/stage-developer';
import type { Proposal } from '../../../core/finishing/propose';
import { shareOfSheet, WHOLE_SHEET } from '../../../core/output/size';
import { useSingleKeys } from '../use-keys';
import type { SeenPress } from './messages';
import { type Developed, Ended, FinishWorkers, type Foremost, type OpenedFilm, paint } from './finish-workers';

export type Compared = 'after' | 'before' | 'parted';

export interface Finishing {
  /** `none`: there is no complete film to be finished. */
  state: 'none' | 'opening' | 'ready';
  fault: string | null;
  film: OpenedFilm | null;
  /** Whether light layers that are denoised are still on their way. */
  settling: boolean;
  histogram: Histogram | null;
  before: Histogram | null;
  compared: Compared;
  onCompared: (compared: Compared) => void;
  /** Where the divider stands, share of the width. */
  divider: number;
  onDivider: (at: number) => void;
  now: React.RefObject<HTMLCanvasElement | null>;
  was: React.RefObject<HTMLCanvasElement | null>;
  /** What is drawn now, and how long it took from the change, ms. */
  shown: { key: string; level: StageLevel; ms: number } | null;
  /** The press that the picture is shown for. */
  press: SeenPress | null;
  onPress: (press: SeenPress | null) => void;
  /** Share of the picture whose colour that press cannot hold. */
  lostShare: number;
  /** Small pictures of each light alone, by its name, as data addresses. */
  alone: Readonly<Record<string, string>>;
  propose: () => Promise<Proposal | null>;
  /** What is foremost at a place of the sheet, in shares of it; null beyond the film's picture. */
  pick: (u: number, v: number) => Promise<Foremost | null>;
}

// A full picture that takes less than this needs no draft.
const QUICK_MS = 40;
const REST_MS = 180;
// The denoising of layers is asked for when its slider rests.
const REFETCH_MS = 500;
const ALONE_PX = 144;

export const canFinish = (proof: ProofDto | null): proof is ProofDto =>
  proof !== null && (proof.state === 'done' || proof.state === 'kept') && proof.picture_count > 0;

export function useFinishing(proof: ProofDto | null, finish: Finish, open: boolean): Finishing {
  const workers = useRef<FinishWorkers | null>(null);
  const now = useRef<HTMLCanvasElement>(null);
  const was = useRef<HTMLCanvasElement>(null);
  const [film, setFilm] = useState<(OpenedFilm & { key: string }) | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [settling, setSettling] = useState(false);
  const [histogram, setHistogram] = useState<Histogram | null>(null);
  const [before, setBefore] = useState<Histogram | null>(null);
  const [compared, onCompared] = useState<Compared>('after');
  const [divider, onDivider] = useState(0.5);
  const [shown, setShown] = useState<Finishing['shown']>(null);
  const [alone, setAlone] = useState<Finishing['alone']>({});
  const [press, onPress] = useState<SeenPress | null>(null);
  const [lostShare, setLostShare] = useState(0);
  const on = open && canFinish(proof);
  const id = on ? proof.id : null;
  const stamp = on ? `${proof.id} ${proof.picture_count} ${proof.denoise_share}` : null;

  useEffect(() => {
    if (id === null) return;
    const created = new FinishWorkers();
    workers.current = created;
    return () => {
      created.end();
      workers.current = null;
      setFilm(null);
      setShown(null);
      setHistogram(null);
      setBefore(null);
      setAlone({});
      setFault(null);
      setSettling(false);
    };
  }, [id]);

  const noteFault = (error: unknown): null => {
    if (!(error instanceof Ended)) setFault((error as Error).message);
    return null;
  };

  // the film, at first with its layers as they are
  const layersDenoise = !film || (film.groups.length > 0 && film.denoised) ? finish.denoise : 1;
  const maskNames = finish.masks.map(({ of, name }) => `${of}:${name}`).join('\n');
  const opened = useRef<string | null>(null);
  const openedMasks = useRef('');
  useEffect(() => {
    if (stamp === null) return;
    let left = false;
    const own = workers.current!;
    const read = async (settled: boolean) => {
      const query = new URLSearchParams({ denoise: String(layersDenoise) });
      if (settled) query.set('settled', '');
      for (const name of maskNames ? maskNames.split('\n') : []) query.append('mask', name);
      const facts = await own.open(`/api/proofs/${id}/film?${query}`);
      if (left) return null;
      setFilm({ ...facts, key: `${stamp} ${query}` });
      return facts;
    };
    const run = async () => {
      try {
        const first = opened.current !== stamp || openedMasks.current !== maskNames;
        opened.current = stamp;
        openedMasks.current = maskNames;
        const facts = first ? await read(false) : film;
        if (!facts || facts.groups.length === 0 || !facts.denoised) return;
        if (layersDenoise > 0) {
          setSettling(true);
          await read(true);
        } else if (!first) await read(false);
      } catch (error) {
        if (!left) noteFault(error);
      } finally {
        if (!left) setSettling(false);
      }
    };
    const sameFilm = opened.current === stamp && openedMasks.current === maskNames;
    const later = setTimeout(() => void run(), sameFilm ? REFETCH_MS : 0);
    return () => {
      left = true;
      clearTimeout(later);
    };
    // `film` is what this makes
  }, [stamp, layersDenoise, maskNames]);
  useEffect(() => {
    if (stamp === null) opened.current = null;
  }, [stamp]);

  // one order at a time; of those that wait the newest
  const wanted = useRef<{ finish: Finish; since: number } | null>(null);
  const busy = useRef(false);
  const slow = useRef(0);
  const resting = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const latest = useRef(finish);
  latest.current = finish;
  const seenPress = useRef(press);
  seenPress.current = press;
  const within = on ? shareOfSheet(proof.brief) : null;
  const share = useRef(within);
  share.current = within;
  const drawn = (made: Developed, of: Finish, ms: number) => {
    if (now.current) paint(now.current, made);
    setFault(null);
    setHistogram(made.histogram);
    setLostShare(made.lostShare);
    setShown({ key: developKey(of), level: made.level, ms });
  };
  const turn = async () => {
    if (busy.current) return;
    busy.current = true;
    while (wanted.current && workers.current && share.current) {
      const { finish: of, since } = wanted.current;
      wanted.current = null;
      const level: StageLevel = slow.current > QUICK_MS ? 'draft' : 'full';
      const made = await workers.current.develop(of, share.current, level, seenPress.current).catch(noteFault);
      if (!made) continue;
      if (level === 'full') slow.current = made.ms;
      drawn(made, of, performance.now() - since);
      clearTimeout(resting.current);
      if (level === 'draft') resting.current = setTimeout(() => void settle(), REST_MS);
    }
    busy.current = false;
  };
  const settle = async () => {
    if (busy.current || !workers.current || !share.current) return;
    busy.current = true;
    const of = latest.current;
    const made = await workers.current.develop(of, share.current, 'full', seenPress.current).catch(noteFault);
    if (made) {
      slow.current = made.ms;
      if (!wanted.current) drawn(made, of, made.ms);
    }
    busy.current = false;
    void turn();
  };
  const key = on && film ? `${film.key} ${developKey(finish)} ${canonicalJson(press)}` : null;
  useEffect(() => {
    if (key === null) return;
    wanted.current = { finish: latest.current, since: performance.now() };
    void turn();
  }, [key]);

  // as the proof was finished, printed where the picture beside it is
  const beforeFinish = on ? proof.brief.finish : null;
  const beforeKey = on && film ? `${film.key} ${developKey(beforeFinish!)} ${canonicalJson(press)}` : null;
  const proofFinish = useRef(beforeFinish);
  proofFinish.current = beforeFinish;
  useEffect(() => {
    const own = workers.current;
    if (beforeKey === null || !own || !share.current) return;
    own.develop(proofFinish.current!, share.current, 'full', seenPress.current).then((made) => {
      if (workers.current !== own) return;
      if (was.current) paint(was.current, made);
      setBefore(made.histogram);
    }, noteFault);
  }, [beforeKey]);

  // each light alone, small
  const groups = canonicalJson([film?.groups ?? [], film?.key ?? null]);
  useEffect(() => {
    const own = workers.current;
    const [names] = JSON.parse(groups) as [string[]];
    if (names.length === 0 || !own || !share.current) return;
    let left = false;
    const draw = async () => {
      for (const name of names) {
        if (left || !share.current) return;
        const lamps = names
          .filter((n) => n !== name)
          .map((group) => ({ group, on: false, dim_ev: 0, warmth_mired: 0 }));
        // as bright as it must be to be seen: beside the sun a lamp alone would be black
        const alone: Finish = { ...BRIEF_DEFAULTS.finish, denoise: latest.current.denoise, lamps };
        const metered = await own.propose(alone);
        if (left || !share.current) return;
        const exposure_ev = metered?.changes.exposure_ev ?? 0;
        const made = await own.develop({ ...alone, exposure_ev }, share.current, 'draft');
        if (left) return;
        const address = smallPicture(made);
        setAlone((known) => ({ ...known, [name]: address }));
      }
    };
    // small pictures that cannot be made are left out
    draw().catch(() => {});
    return () => {
      left = true;
    };
  }, [groups]);

  // held: the picture as it was, then again what was compared
  const [singleKeys] = useSingleKeys();
  const comparing = useRef(compared);
  comparing.current = compared;
  useEffect(() => {
    if (!on || !singleKeys) return;
    let held: Compared | null = null;
    const typing = (target: EventTarget | null) =>
      target instanceof HTMLElement && (target.tagName === 'INPUT' || target.tagName === 'TEXTAREA');
    const press = (event: KeyboardEvent) => {
      if (event.key !== 'b' || event.ctrlKey || event.metaKey || event.altKey || typing(event.target)) return;
      if (event.repeat) return;
      held = comparing.current;
      onCompared('before');
    };
    const release = (event: KeyboardEvent) => {
      if (event.key !== 'b' || held === null) return;
      onCompared(held);
      held = null;
    };
    addEventListener('keydown', press);
    addEventListener('keyup', release);
    return () => {
      removeEventListener('keydown', press);
      removeEventListener('keyup', release);
    };
  }, [on, singleKeys]);

  return {
    state: !on ? 'none' : film ? 'ready' : 'opening',
    fault,
    film,
    settling,
    histogram,
    before,
    compared,
    onCompared,
    divider,
    onDivider,
    now,
    was,
    shown,
    press,
    onPress,
    lostShare,
    alone,
    propose: () => workers.current?.propose(latest.current) ?? Promise.resolve(null),
    pick: async (u, v) => {
      const { x, y, width, height } = share.current ?? WHOLE_SHEET;
      const [s, t] = [(u - x) / width, (v - y) / height];
      return s < 0 || t < 0 || s >= 1 || t >= 1 ? null : ((await workers.current?.pick(s, t)) ?? null);
    }
  };
}

function smallPicture(made: Developed): string {
  const whole = document.createElement('canvas');
  paint(whole, made);
  const small = document.createElement('canvas');
  const scale = ALONE_PX / Math.max(made.width, made.height);
  small.width = Math.max(1, Math.round(made.width * scale));
  small.height = Math.max(1, Math.round(made.height * scale));
  const context = small.getContext('2d')!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(whole, 0, 0, small.width, small.height);
  return small.toDataURL('image/png');
}
