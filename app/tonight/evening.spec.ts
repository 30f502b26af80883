/** An evening at the bench by its services: what each press writes, and what is said of it. */
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { endedSteps, standing } from '#core/log';
import { smallMuster } from '../../core/plan/testing';
import { quickDesk } from '../data/testing/quickDesk';
import { emptyBrowser, openTab, type TestTab } from '../data/testing/services';
import { atTheBench, planSettled, type TestBench } from './testing/bench';

const EVENING = new Date('2027-03-01T19:00:00Z');

async function evening(): Promise<{ tab: TestTab; bench: TestBench }> {
  const tab = await openTab(EVENING, { openDesk: quickDesk(), planningPauseMs: 0, wantsDemo: false });
  void tab.planner;
  await tab.store.add(smallMuster(), 'small');
  await planSettled(tab);
  return { tab, bench: atTheBench(tab) };
}
const after = (tab: TestTab, minutes: number): void => {
  tab.time = new Date(tab.time.getTime() + minutes * 60_000);
};
const said = (tab: TestTab): string => tab.notices.current()?.text ?? '';

beforeEach(emptyBrowser);

/** Works on until a coat that begins a window is on, and then begins its sandwich again. */
async function reworked({ tab, bench }: { tab: TestTab; bench: TestBench }, minutes: number) {
  for (let k = 0; k < 4; k++) {
    const steps = bench.evening.run();
    await bench.evening.done();
    await planSettled(tab);
    after(tab, minutes);
    bench.evening.troubled.set(steps);
    const again = bench.evening.cures().find((c) => c.again.length > 0);
    bench.evening.troubled.set(null);
    if (!again) continue;
    bench.evening.troubled.set(steps);
    await bench.evening.mend(again);
    await planSettled(tab);
    return steps;
  }
  throw new Error('No coat of this muster begins a window.');
}

describe('a coat that has to go on again', () => {
  it('is in hand again, can be ticked off, and is then over: here, after a reload, and in the plan', async () => {
    const { tab, bench } = await evening();
    const steps = await reworked({ tab, bench }, 5);
    const open = bench.evening.run().map((s) => s.id);
    expect(open).toEqual(expect.arrayContaining(steps.map((s) => s.id)));
    after(tab, 30);
    await bench.evening.done();
    await planSettled(tab);
    expect(said(tab)).toContain('is done');
    for (const id of open) expect(endedSteps(tab.logbook.entries()).has(id)).toBe(true);
    expect(bench.evening.run().map((s) => s.id)).not.toEqual(expect.arrayContaining(open));
    const next = await openTab(tab.time);
    expect(next.logbook.entries()).toEqual(tab.logbook.entries());
  });

  it('is over even where all of its run is dated back from the press, to before it was reopened', async () => {
    const { tab, bench } = await evening();
    await reworked({ tab, bench }, 5);
    const open = bench.evening.run().map((s) => s.id);
    expect(open.length).toBeGreaterThan(1);
    // At once, and by its own word it took an hour: the first pieces were done before the rework.
    await bench.evening.done(60);
    for (const id of open) expect(endedSteps(tab.logbook.entries()).has(id)).toBe(true);
  });

  it('stands as it did once that is taken back', async () => {
    const { tab, bench } = await evening();
    const before = await reworked({ tab, bench }, 5);
    await bench.evening.takeBack();
    await planSettled(tab);
    for (const s of before) expect(endedSteps(tab.logbook.entries()).has(s.id)).toBe(true);
  });
});

describe('what is said of a press', () => {
  it('is never “done” where nothing was written: another tab was first', async () => {
    const { tab, bench } = await evening();
    const other = await openTab(EVENING);
    await other.logbook.addAll(bench.evening.run().map((s) => ({ kind: 'done', step: s.id, minutes: 5 })));
    await bench.evening.done();
    expect(said(tab)).toContain('logged already');
  });

  it('is never “done” while the disk is full; what waits is written when there is room', async () => {
    const { tab, bench } = await evening();
    const [step] = bench.evening.run();
    const full = vi
      .spyOn(tab.database, 'addToLog')
      .mockRejectedValueOnce(new DOMException('full', 'QuotaExceededError'));
    await bench.evening.done();
    expect(said(tab)).toContain('not saved yet');
    expect(tab.keeping.trouble()).not.toBeNull();
    expect(endedSteps(tab.logbook.entries()).has(step!.id)).toBe(false);
    full.mockRestore();
    await bench.evening.keepNote('room again', false);
    expect(endedSteps(tab.logbook.entries()).has(step!.id)).toBe(true);
    expect(tab.keeping.trouble()).toBeNull();
    expect(standing((await tab.database.readLog(tab.store.openId!)).entries)).toHaveLength(3);
  });
});
