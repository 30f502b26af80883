/** The clock of the bench: real or rehearsed, over a reload of the tab; and notices that go by themselves. */
import '@angular/compiler';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { BenchClock } from './benchClock';
import { Notices } from './notices';

const NOON = new Date('2026-11-25T12:00:00');
const EVENING = new Date('2026-11-30T19:00:00');
const HOUR_MS = 3_600_000;
let storage: Map<string, string>;

beforeEach(() => {
  vi.useFakeTimers({ now: NOON });
  storage = new Map();
  vi.stubGlobal('sessionStorage', {
    getItem: (key: string) => storage.get(key) ?? null,
    setItem: (key: string, value: string) => void storage.set(key, value),
    removeItem: (key: string) => void storage.delete(key),
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('the clock of the bench', () => {
  it('is the real one at first, renewed twice a second', () => {
    const clock = new BenchClock();
    expect(clock.read()).toEqual(NOON);
    vi.advanceTimersByTime(10_000);
    expect(clock.now().getTime()).toBe(NOON.getTime() + 10_000);
  });

  it('runs from another moment at another speed in a rehearsal', () => {
    const clock = new BenchClock();
    clock.rehearse(EVENING, 20);
    vi.advanceTimersByTime(60_000);
    expect(clock.read()).toEqual(new Date(EVENING.getTime() + 20 * 60_000));
    clock.setSpeed(200);
    vi.advanceTimersByTime(18_000);
    expect(clock.read()).toEqual(new Date(EVENING.getTime() + 20 * 60_000 + HOUR_MS));
    clock.setSpeed(1);
    vi.advanceTimersByTime(1000);
    expect(clock.read()).toEqual(new Date(EVENING.getTime() + 20 * 60_000 + HOUR_MS + 1000));
  });

  it('jumps, and knows the jump at once', () => {
    const clock = new BenchClock();
    clock.rehearse(EVENING);
    clock.rehearse(new Date(EVENING.getTime() + HOUR_MS));
    expect(clock.now()).toEqual(new Date(EVENING.getTime() + HOUR_MS));
  });

  it('goes on rehearsing after a reload, the time in between counted, until it is ended', () => {
    new BenchClock().rehearse(EVENING, 20);
    vi.advanceTimersByTime(30_000);
    const reloaded = new BenchClock();
    expect(reloaded.read()).toEqual(new Date(EVENING.getTime() + 600_000));
    reloaded.backToReal();
    expect(reloaded.read().getTime()).toBe(NOON.getTime() + 30_000);
    expect(new BenchClock().rehearsal()).toBeNull();
  });

  it.each(['nonsense', '{}', '{"from":"x","realFrom":1,"speed":1}', '{"from":1,"realFrom":1,"speed":7}'])(
    'is the real one where what was kept is none: %s',
    (text) => {
      storage.set('patient-muster rehearsal', text);
      expect(new BenchClock().read()).toEqual(NOON);
    },
  );
});

describe('a notice', () => {
  it('goes by itself, later when another takes its place', () => {
    const notices = new Notices();
    notices.tell('first');
    vi.advanceTimersByTime(11_000);
    notices.tell('second');
    vi.advanceTimersByTime(11_000);
    expect(notices.current()!.text).toBe('second');
    vi.advanceTimersByTime(2000);
    expect(notices.current()).toBeNull();
  });

  it('can be sent away, and does not take a later one with it', () => {
    const notices = new Notices();
    notices.tell('first');
    notices.dismiss();
    expect(notices.current()).toBeNull();
    vi.advanceTimersByTime(6000);
    notices.tell('second');
    vi.advanceTimersByTime(7000);
    expect(notices.current()!.text).toBe('second');
  });
});
