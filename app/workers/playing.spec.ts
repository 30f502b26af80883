/** Futures are played once each, whoever plays them, and a helper that fails costs none of them. */
import { describe, expect, it } from 'vitest';
import type { Forecast, Tally } from '#core/odds';
import { playFutures, type Helper } from './playing';

/** A player that only notes which futures it was given; a tally is told by its futures. */
class Notes {
  next = 0;
  units = 3;
  readonly own: number[] = [];
  readonly others: number[] = [];
  play(): void {
    this.own.push(this.next++);
  }
  leave(count: number): number {
    this.next += count;
    return this.next - count;
  }
  take(tally: Tally): void {
    this.others.push(...tally.ready[0]!);
  }
  told(): Forecast {
    return { futures: this.own.length + this.others.length } as Forecast;
  }
}

const tallyOf = (from: number, count: number): Tally =>
  ({ ready: [Array.from({ length: count }, (_, k) => from + k)] }) as unknown as Tally;
const turn = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

function play(helper: Helper | null, more: Partial<Parameters<typeof playFutures>[0]> = {}) {
  const player = new Notes();
  const told: number[] = [];
  const outcome = playFutures({
    player,
    futures: 100,
    ms: 60_000,
    helper,
    isEnded: () => false,
    tell: (f) => told.push(f.futures),
    ...more,
  });
  return { player, told, outcome };
}

describe('playing futures', () => {
  it('alone plays as many as were asked for', async () => {
    const { player, told, outcome } = play(null);
    expect((await outcome)!.futures).toBe(100);
    expect(player.own).toHaveLength(100);
    expect(told.at(-1)).toBe(100);
  });

  it('with a helper plays each once, and waits for what it was left', async () => {
    const asked: number[] = [];
    const helper: Helper = {
      played: async (from, count) => {
        asked.push(count);
        await turn();
        return tallyOf(from, count);
      },
    };
    const { player, outcome } = play(helper);
    expect((await outcome)!.futures).toBe(100);
    expect(asked.length).toBeGreaterThan(0);
    expect(player.others.length).toBe(asked.reduce((a, b) => a + b, 0));
    const all = [...player.own, ...player.others].sort((a, b) => a - b);
    expect(all).toEqual(Array.from({ length: 100 }, (_, k) => k));
  });

  it('plays others in the place of those that a helper has lost', async () => {
    const { player, outcome } = play({ played: () => Promise.reject(new Error('lost')) });
    expect((await outcome)!.futures).toBe(100);
    expect(player.others).toEqual([]);
    expect(new Set(player.own).size).toBe(100);
  });

  it('ends when its time is over, whatever a helper still owes', async () => {
    const { player, outcome } = play({ played: () => new Promise(() => undefined) }, { ms: 30 });
    expect((await outcome)!.futures).toBe(player.own.length);
    expect(player.own.length).toBeGreaterThan(0);
  });

  it('leaves when it is ended', async () => {
    let turns = 0;
    const { outcome } = play(null, { futures: 1e9, isEnded: () => ++turns > 2 });
    expect(await outcome).toBeNull();
  });
});
