/**
 * `npm run torture [-- kernel files tabs kills campaigns planted]`: the long forms of what the suite does in short; `campaigns 17` plays the
 * campaign of seed 17 alone. Prints what was done; ends with 1 when anything broke. `kills` needs a built app and Debian's Chromium.
 */
import { tortureCampaigns } from './campaigns/campaign';
import { PLANTED, unnoticed } from './campaigns/planted';
import { tortureFiles } from './files';
import { tortureKernel } from './kernel';
import { tortureKills } from './kills';
import { tortureTabs } from './tabs';
import type { Verdict } from './verdict';

const args = process.argv.slice(2);
/** Of a torture that goes by seeds, only this one. */
const seed = args.map(Number).find((n) => Number.isInteger(n)) ?? null;
const asked = args.filter((a) => !/^\d+$/.test(a));
const TORTURES: Readonly<Record<string, () => Promise<readonly Verdict[]>>> = {
  kernel: async () => [tortureKernel(50_000)],
  files: async () => (['muster', 'log', 'readings'] as const).map((kind) => tortureFiles(kind, 10_000)),
  tabs: async () => [await tortureTabs(1000)],
  kills: async () => [await tortureKills(200)],
  campaigns: async () => [
    await tortureCampaigns({
      ...(seed === null ? { count: 200 } : { count: 1, from: seed }),
      onFault: console.log,
    }),
  ],
  planted: async () => [{ faults: await unnoticed(6), told: `${PLANTED.length} planted faults` }],
};

const unknown = asked.filter((name) => !(name in TORTURES));
if (unknown.length > 0) {
  console.error(`There is no torture ${unknown.join(', ')}; known: ${Object.keys(TORTURES).join(', ')}.`);
  process.exit(2);
}
let broken = 0;
for (const [name, torture] of Object.entries(TORTURES)) {
  if (asked.length > 0 && !asked.includes(name)) continue;
  const begun = performance.now();
  for (const { faults, told } of await torture()) {
    console.log(`${name}: ${told}: ${faults.length === 0 ? 'nothing broke' : `${faults.length} broke`}`);
    for (const fault of faults.slice(0, 20)) console.log(`  ${fault}`);
    broken += faults.length;
  }
  console.log(`${name}: ${((performance.now() - begun) / 1000).toFixed(0)} s`);
}
process.exit(broken === 0 ? 0 : 1);
