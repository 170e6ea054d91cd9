'use client';
/** When the preview is shown, of what, and when it waits. */
import { type RefObject, useEffect, useRef, useState } from 'react';
import { type Brief, canonicalJson, setAsideOf } from '../../../core/brief/brief';
import type { PreviewPicture } from './messages';
import { Preview, whyNoPreview } from './preview';

// More pixels than this are not worth waiting for; the stage enlarges.
const MAX_PX = 1_200_000;

export interface PreviewInput {
  project: string;
  /** Changes when the model does. */
  model: string;
  brief: Brief;
  /** Of the picture's place on the stage, device px. */
  width: number;
  height: number;
  on: boolean;
  threads: number;
  /** The live view is on the stage. */
  seen: boolean;
  /** The user has the model in hand. */
  moving: boolean;
  /** A sentence's end that says why it waits, or null. */
  waitsFor: string | null;
  /**
   * No graphics card: between two frames the last picture stays, because drawing the model would hold up the next one.
   */
  weak: boolean;
}

export interface PreviewState {
  /** What is painted; null when nothing is that would show this brief's frame. */
  picture: Omit<PreviewPicture, 'rgba'> | null;
  /** Why there is none. */
  fault: string | null;
  waitsFor: string | null;
  /** Of the brief as it stands, per pixel; 0 before its first look. */
  samples: number;
}

/** The brief without what a preview does not show or does not need anew. */
const seenBrief = ({ quality, ...brief }: Brief) =>
  canonicalJson({
    ...brief,
    size: null,
    bleed_mm: 0,
    seen: null,
    quality: {
      ...quality,
      aside: setAsideOf({ quality }),
      slim: null,
      plain: null,
      step: null,
      scale: 1,
      layers: false,
      aovs: false,
      minutes: null
    }
  });

export function usePreview(canvas: RefObject<HTMLCanvasElement | null>, input: PreviewInput): PreviewState {
  const { on, seen, moving, threads } = input;
  const preview = useRef<Preview | null>(null);
  const [shown, setShown] = useState<{ frame: string; key: string; picture: Omit<PreviewPicture, 'rgba'> } | null>(
    null
  );
  const [fault, setFault] = useState<string | null>(null);
  const [hidden, setHidden] = useState(false);
  /** Counts the times that the browser brought this page back. */
  const [visit, setVisit] = useState(0);
  /** The frame of the job under way: what decides where things stand in the picture. */
  const asked = useRef('');
  const askedKey = useRef('');

  // device pixels, even, within the limit
  const shrink = Math.min(1, Math.sqrt(MAX_PX / Math.max(1, input.width * input.height)));
  const width = 2 * Math.round((input.width * shrink) / 2);
  const height = 2 * Math.round((input.height * shrink) / 2);
  const key = `${input.model} ${width}x${height} ${seenBrief(input.brief)}`;
  const frame = `${input.model} ${width}x${height} ${canonicalJson(input.brief.viewpoint)}`;
  const job = { project: input.project, brief: input.brief, width, height, frame };
  const latest = useRef(job);
  latest.current = job;

  useEffect(() => {
    if (!on) return;
    const why = whyNoPreview();
    setFault(why);
    if (why) return;
    const made = new Preview({
      onPicture({ rgba, ...picture }) {
        const target = canvas.current;
        if (!target) return;
        target.width = picture.width;
        target.height = picture.height;
        target
          .getContext('2d')!
          .putImageData(new ImageData(new Uint8ClampedArray(rgba), picture.width, picture.height), 0, 0);
        setFault(null);
        setShown({ frame: asked.current, key: askedKey.current, picture });
      },
      onRefused(message) {
        setShown(null);
        setFault(message);
      }
    });
    preview.current = made;
    // a page that the browser keeps to go back to must not keep the scene
    const leave = () => made.end();
    const comeBack = (event: PageTransitionEvent) => event.persisted && setVisit((v) => v + 1);
    addEventListener('pagehide', leave);
    addEventListener('pageshow', comeBack);
    return () => {
      removeEventListener('pagehide', leave);
      removeEventListener('pageshow', comeBack);
      preview.current = null;
      asked.current = '';
      setShown(null);
      made.end();
    };
  }, [on, input.project, input.model, visit, canvas]);

  useEffect(() => preview.current?.limitThreads(threads), [threads, on, input.project, input.model, visit]);

  useEffect(() => {
    const look = () => setHidden(document.hidden);
    look();
    document.addEventListener('visibilitychange', look);
    return () => document.removeEventListener('visibilitychange', look);
  }, []);
  const waits = hidden || input.waitsFor !== null;
  useEffect(() => preview.current?.pause(waits), [waits, on, input.project, input.model, visit]);

  const usable = on && width >= 8 && height >= 8;
  // the scene is fetched before it is wanted, once the page has settled
  useEffect(() => {
    if (!usable || waits) return;
    const timer = setTimeout(() => preview.current?.getReady(latest.current), 1500);
    return () => clearTimeout(timer);
  }, [usable, waits, input.project, input.model, visit]);

  useEffect(() => {
    if (!usable || !seen || moving) {
      asked.current = '';
      preview.current?.show(null);
      return;
    }
    asked.current = frame;
    askedKey.current = key;
    // what was refused before was another order
    if (preview.current) setFault(null);
    preview.current?.show(latest.current);
  }, [usable, seen, moving, key, frame, visit]);

  // while light or material changes the last picture is nearer to the truth than the raster view; of another frame it
  // is not
  const fits = shown !== null && seen && !moving && (shown.frame === frame || (input.weak && fault === null));
  return {
    picture: fits ? shown.picture : null,
    fault: on ? fault : null,
    waitsFor: hidden ? null : input.waitsFor,
    samples: fits && shown.key === key ? shown.picture.samples : 0
  };
}
