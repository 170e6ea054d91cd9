import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { giveWay, previewComesFirst } from './preview-first';

describe('what gives way to a preview', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => {
    vi.advanceTimersByTime(60_000);
    vi.useRealTimers();
  });

  it('stands still from a question until some time after the last one', () => {
    const told: boolean[] = [];
    const leave = giveWay((paused) => told.push(paused));
    expect(told).toEqual([]);
    previewComesFirst();
    vi.advanceTimersByTime(1000);
    previewComesFirst();
    vi.advanceTimersByTime(1000);
    expect(told).toEqual([true]);
    vi.advanceTimersByTime(1000);
    expect(told).toEqual([true, false]);
    leave();
  });

  it('stands still at once when it begins in the meantime, and is told nothing after its end', () => {
    previewComesFirst();
    const told: boolean[] = [];
    const leave = giveWay((paused) => told.push(paused));
    expect(told).toEqual([true]);
    leave();
    vi.advanceTimersByTime(5000);
    previewComesFirst();
    expect(told).toEqual([true]);
  });
});
