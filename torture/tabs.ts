/** Two tabs of one browser (on an IndexedDB in memory), edits by turns without waiting: none is lost, both come to the same. */
import { withUnit } from '#core/muster';
import { seededRandom } from '#core/kernel';
import { emptyBrowser, openTab } from '../app/data/testing/services';
import type { Verdict } from './verdict';

export async function tortureTabs(count: number, seed = 1): Promise<Verdict> {
  emptyBrowser();
  const random = seededRandom(seed);
  const now = new Date('2026-11-25T12:00:00Z');
  const tabs = [await openTab(now), await openTab(now)];
  const before = tabs[0]!.store.muster()!.units.length;
  for (let k = 0; k < count; k++) {
    const tab = tabs[random() < 0.5 ? 0 : 1]!;
    tab.store.change(`Unit ${k}`, (m) =>
      withUnit(m, { ...m.units[0]!, id: `new${k}`, name: `New ${k}`, pieces: [] }),
    );
    if (random() < 0.3) await new Promise((resolve) => setTimeout(resolve, random() * 4));
  }
  for (const tab of tabs) await tab.store.settled();
  const third = await openTab(now);
  const kept = new Set(third.store.muster()!.units.map((u) => u.id));
  const faults = Array.from({ length: count }, (_, k) => `new${k}`)
    .filter((id) => !kept.has(id))
    .map((id) => `edit ${id} is lost`);
  if (kept.size !== before + count) faults.push(`${kept.size} units instead of ${before + count}`);
  for (const tab of [...tabs, third]) tab.close();
  return { faults, told: `${count} interleaved edits in two tabs` };
}
