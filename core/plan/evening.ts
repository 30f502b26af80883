/** What kind of evening a session is, in few words: what most of it goes into, and in what order. */
import type { Layer } from '#core/muster';
import type { FamilyId } from '#core/materials';
import type { PlanStep } from './present';
import { runsOf, swapsOf } from './runs';

export interface Evening {
  readonly runs: number;
  /** how often the airbrush is taken up or put down between two runs */
  readonly swaps: number;
  /** such as `priming, then first washes`; empty where nothing is done */
  readonly kind: string;
}

const OF_FAMILY: Readonly<Record<FamilyId, string>> = {
  acrylic: 'colours',
  metal: 'metals',
  ink: 'inks',
  'acrylic-wash': 'washes',
  primer: 'priming',
  lacquer: 'lacquers',
  varnish: 'varnishing',
  medium: 'chipping',
  enamel: 'enamel washes',
  oil: 'oils',
  setting: 'markings',
  powder: 'powders',
  pen: 'pencil and pen',
  paste: 'mud and texture',
  'spirit-mud': 'mud and texture',
  water: 'pours',
  crackle: 'crackle',
  washable: 'washable paint',
  work: 'work by hand',
};
const OF_TASK: Partial<Record<NonNullable<Layer['task']>, string>> = {
  lift: 'chipping',
  wipe: 'wiping back',
  mask: 'masking',
  unmask: 'unmasking',
  putty: 'masking',
  glue: 'gluing',
  decal: 'markings',
  softener: 'markings',
  rinse: 'markings',
  polish: 'polishing',
  spatter: 'spatter',
};

/** From this share of a session's minutes on a kind of work is worth naming. */
const WORTH_NAMING = 0.18;

/** @param steps of one session, by start */
export function eveningOf(steps: readonly PlanStep[]): Evening {
  const runs = runsOf(steps);
  return { runs: runs.length, swaps: swapsOf(runs), kind: kindOf(steps) };
}

function kindOf(steps: readonly PlanStep[]): string {
  const kinds = new Map<string, { minutes: number; middle: number }>();
  let all = 0;
  for (const { layer, start, end } of steps) {
    const name = (layer.task && OF_TASK[layer.task]) ?? OF_FAMILY[layer.family];
    const known = kinds.get(name) ?? { minutes: 0, middle: 0 };
    const minutes = end - start;
    all += minutes;
    kinds.set(name, {
      minutes: known.minutes + minutes,
      middle: known.middle + (minutes * (start + end)) / 2,
    });
  }
  const byMinutes = [...kinds].sort((a, b) => b[1].minutes - a[1].minutes);
  return byMinutes
    .slice(0, 2)
    .filter(([, k], at) => at === 0 || k.minutes >= WORTH_NAMING * all)
    .sort((a, b) => a[1].middle / a[1].minutes - b[1].middle / b[1].minutes)
    .map(([name]) => name)
    .join(', then ');
}
