/** What must hold after every act of a campaign, and at its end. Each truth tells in words where it does not. */
import { corrections, endedSteps, entrySchema, mergeLogs, standing, type LogEntry } from '#core/log';
import { minutesUntil, parseMuster, storesOf } from '#core/muster';
import type { Plan, PlanStep } from '#core/plan';
import { jarsOf, keyOf, productUses } from '#core/stores';
import { reread } from './acts';
import { ID_MARK } from './campaignMuster';
import type { Life } from './life';

export type Truth = (life: Life) => string[] | Promise<string[]>;

const isReal = (life: Life): boolean => life.tab.clock.rehearsal() === null;
const entries = (life: Life): readonly LogEntry[] => life.tab.logbook.entries();
const sorted = (ids: Iterable<string>): string => [...ids].sort().join(' ');

/** Whatever is shown as saved is there after a reload. */
const savedIsThere: Truth = async (life) => {
  const { store, database, keeping } = life.tab;
  if (keeping.unwritten() > 0 || store.openId === null || !isReal(life)) return [];
  const kept = await database.load(store.openId);
  const faults: string[] = [];
  const text = kept && JSON.stringify(parseMuster(JSON.parse(kept.text)));
  if (text !== JSON.stringify(store.muster())) faults.push('the muster in the database is not the one shown');
  const log = mergeLogs((await database.readLog(store.openId)).entries, []);
  if (JSON.stringify(log) !== JSON.stringify(entries(life)))
    faults.push('the log in the database is not the one shown');
  for (const e of entries(life)) {
    const read = entrySchema.safeParse(e);
    if (!read.success) faults.push(`an entry is none: ${read.error.message} ${JSON.stringify(e)}`);
  }
  return faults;
};

/** The log read again gives the same state. */
const logIsEnough: Truth = (life) => {
  const log = entries(life);
  const shuffled = reread([...log].reverse());
  return sorted(endedSteps(log).keys()) === sorted(endedSteps(shuffled).keys())
    ? []
    : ['the log read again says otherwise what is over'];
};

/** The planner comes to rest: with a plan, or with why there is none. */
const planIsTold: Truth = (life) => {
  const { planner, store } = life.tab;
  switch (planner.state()) {
    case 'planned':
      return planner.plan() === null ? ['planned, and there is no plan'] : [];
    case 'faulty':
      return store.findings().some((f) => f.severity === 'error') ? [] : ['faulty, and no error is found'];
    case 'impossible':
      return planner.problem() ? [] : ['impossible, and nobody says why'];
    case 'failed':
      return [`planning failed: ${planner.problem() ?? 'nobody says why'}`];
    default:
      return [`planning is ${planner.state()} for ever`];
  }
};

/** What is left is planned from the moment at which it was planned, and nothing of it sooner. */
const planFollowsLog: Truth = (life) => {
  const { planner } = life.tab;
  const plan = planner.plan();
  const planned = planner.plannedFrom();
  if (planner.state() !== 'planned' || !plan || planned === null) return [];
  const ended = endedSteps(entries(life));
  const from = minutesUntil(plan.origin, planned);
  const early = [...plan.steps.values()].find((s) => !ended.has(s.id) && s.start < from - 1);
  return early ? [`${named(early)} is planned ${Math.round(from - early.start)} min in the past`] : [];
};

/** No window is broken without a word. */
const windowsHold: Truth = (life) => {
  const { planner } = life.tab;
  const plan = planner.plan();
  if (planner.state() !== 'planned' || !plan || planner.isMissed()) return [];
  const ended = endedSteps(entries(life));
  // What was mended or accepted by hand begins no window any more.
  const mended = new Set(corrections(entries(life)).map((e) => e.step));
  for (const s of plan.steps.values()) {
    if (s.gate === null || mended.has(s.id)) continue;
    for (const id of s.gate.steps) {
      const next = plan.steps.get(id);
      if (!next || ended.has(id)) continue;
      if (s.gate.closes !== null && next.start > s.gate.closes + 1)
        return [`${named(next)} comes after the window of ${named(s)} has closed`];
      if (next.start < s.gate.opens - 1)
        return [`${named(next)} comes before the window of ${named(s)} opens`];
    }
  }
  return [];
};

/** No two things at once in one pair of hands. */
const handsAreTwo: Truth = (life) => {
  const plan = life.tab.planner.plan();
  const people = life.tab.store.muster()?.bench.people.length ?? 0;
  if (!plan || people === 0 || life.tab.planner.state() !== 'planned') return [];
  const ended = endedSteps(entries(life));
  const open = [...plan.steps.values()].filter(
    (s) => !ended.has(s.id) && !s.layer.pausable && s.end > s.start,
  );
  const events = open
    .flatMap((s) => [
      { at: s.start, by: 1, step: s },
      { at: s.end, by: -1, step: s },
    ])
    .sort((a, b) => a.at - b.at || a.by - b.by);
  let busy = 0;
  for (const { by, step } of events) {
    busy += by;
    if (busy > people) return [`${busy} things at once for ${people} at ${named(step)}`];
  }
  return [];
};

/** The shelf is what the drying clocks say: from when it really ended, and nothing is planned on it while it is wet. */
const shelfIsTrue: Truth = (life) => {
  const plan = life.bench.evening.plan();
  if (!plan || life.tab.planner.state() !== 'planned') return [];
  const ended = endedSteps(entries(life));
  const faults: string[] = [];
  for (const coat of life.bench.evening.coats()) {
    const entry = ended.get(coat.step.id);
    if (!entry) faults.push(`${named(coat.step)} stands on the shelf and is not done`);
    else if (Math.abs(minutesUntil(plan.origin, entry.at) - coat.ended) > 0.01)
      faults.push(`${named(coat.step)} dries from another minute than the log says`);
    if (!(coat.touchAt >= coat.ended - 0.01 && coat.dryAt >= coat.touchAt - 0.01))
      faults.push(`${named(coat.step)} is dry before it may be touched`);
  }
  return faults.slice(0, 2);
};

/** Bottles and what was used are what was there. */
const nothingIsLost: Truth = (life) => {
  const { store } = life.tab;
  const muster = store.muster();
  const plan = life.tab.planner.plan();
  if (!muster || !plan || life.tab.planner.state() !== 'planned') return [];
  const log = entries(life);
  const uses = new Map(productUses(muster, plan, log).map((u) => [keyOf(u.name), u]));
  const faults: string[] = [];
  for (const product of storesOf(muster).products) {
    const used = standing(log).reduce((sum, e) => {
      if (e.kind !== 'done' || (product.leftAt !== undefined && e.at <= product.leftAt)) return sum;
      return sum + (e.used ?? []).reduce((s, u) => s + (keyOf(u.name) === keyOf(product.name) ? u.ml : 0), 0);
    }, 0);
    const left = uses.get(keyOf(product.name))?.leftMl ?? NaN;
    // What was ticked without a word of what went into the cup is computed by the plan: then more has gone, never less.
    if (!(left <= Math.max(0, product.leftMl - used) + 0.001))
      faults.push(
        `a bottle of ${product.leftMl} ml, of which ${used.toFixed(2)} ml was used, holds ${left.toFixed(2)} ml`,
      );
  }
  for (const jar of jarsOf(muster, log)) if (!(jar.leftMl >= 0)) faults.push(`a jar holds ${jar.leftMl} ml`);
  return faults;
};

const BAD = new RegExp(`NaN|undefined|\\bnull\\b|Infinity|\\[object|${ID_MARK}`);

/** What is said is words. */
const textsAreWords: Truth = async (life) => {
  const { tab, bench } = life;
  const { evening } = bench;
  const plan = tab.planner.plan();
  const [step] = evening.run();
  const why = step && plan?.steps.has(step.id) ? await tab.planner.why(step.id) : null;
  const texts = [
    tab.notices.current()?.text,
    tab.planner.problem(),
    tab.store.trouble(),
    tab.logbook.trouble(),
    tab.keeping.trouble(),
    evening.day(),
    evening.time(),
    evening.startFirst(),
    evening.ahead()?.words,
    ...evening.shelf().flatMap((r) => [r.words, ...r.pieces.map((p) => p.words)]),
    ...evening.layout().flatMap((l) => [l.group, ...l.lines]),
    ...evening.cures().flatMap((c) => [c.trouble, c.cure]),
    ...tab.store.findings().flatMap((f) => [f.text, f.where, f.fix?.label]),
    ...tab.planner.cautions().flatMap((f) => f.text),
    ...(why ? [JSON.stringify(why, (key, value: unknown) => (isTextKey(key) ? value : undefined))] : []),
  ];
  const bad = texts.find((t) => t !== null && t !== undefined && BAD.test(t));
  return bad === undefined ? [] : [`a text says “${bad}”`];
};

/** Of a value that holds words, the parts that are words. */
const isTextKey = (key: string): boolean =>
  key === '' || /^\d+$/.test(key) || /text|words|links|chain/i.test(key);

/** All that somebody lives by is finite. */
const figuresAreNumbers: Truth = (life) => {
  const plan = life.tab.planner.plan();
  if (!plan) return [];
  const bad = [...plan.steps.values()].find(
    (s) => ![s.start, s.end, s.tide.wetUntil, s.tide.dryAt, s.curedAt].every(Number.isFinite),
  );
  const unit = plan.units.find((u) => ![u.due, u.ready, u.lateMinutes].every(Number.isFinite));
  return [
    ...(bad ? [`${named(bad)} has no finite times`] : []),
    ...(unit ? [`unit ${unit.name} has no finite times`] : []),
  ];
};

export const TRUTHS: readonly Truth[] = [
  savedIsThere,
  logIsEnough,
  planIsTold,
  planFollowsLog,
  windowsHold,
  handsAreTwo,
  shelfIsTrue,
  nothingIsLost,
  textsAreWords,
  figuresAreNumbers,
];

/** At the end of the season: everything that was planned is over. */
export function openAtTheEnd(plan: Plan | null, log: readonly LogEntry[]): readonly PlanStep[] {
  const ended = endedSteps(log);
  return [...(plan?.steps.values() ?? [])].filter((s) => !ended.has(s.id));
}

export function named(step: PlanStep): string {
  return `“${step.layer.name}” on ${step.piece.name}`;
}
