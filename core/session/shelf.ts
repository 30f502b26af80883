/** The drying shelf, coat by coat: what stands on it until somebody finds it dry, or covers it, and every window that is under way. */
import { zonesOf } from '#core/recipe';
import { duration, type Plan, type PlanStep } from '#core/plan';
import { minutesUntil } from '#core/muster';
import { corrections, type Ended, endedSteps, type LogEntry, standing } from '#core/log';

/** What is on one piece, and by when; minutes since the plan's origin. */
export interface Resting {
  readonly step: PlanStep;
  /** when it was really done */
  readonly ended: number;
  /** it may be touched, and gone over, from then on: as planned, or as a look has shown */
  readonly touchAt: number;
  readonly dryAt: number;
  /** somebody has looked and found it dry */
  readonly isFoundDry: boolean;
  /** the window that it began; null: none, or it is over with */
  readonly gate: { readonly opens: number; readonly closes: number } | null;
}

export type ShelfState = 'missed' | 'closing' | 'open' | 'opening' | 'wet' | 'drying' | 'dry';

/** One coat of one run. */
export interface ShelfRow {
  /** id of its first step */
  readonly key: string;
  readonly pieces: readonly { readonly resting: Resting; readonly words: string }[];
  /** of the piece that presses most */
  readonly state: ShelfState;
  readonly words: string;
  /** what orders the shelf: the next moment that matters */
  readonly moment: number;
  /** the coat as it dries, and its window: that of the piece that presses most */
  readonly lead: Resting;
}

/** A window is about to shut when so many minutes of it are left. */
const CLOSING = 10;

/** Every coat that stands on the shelf, whatever the time. */
export function restingCoats(plan: Plan, log: readonly LogEntry[]): Resting[] {
  const ended = endedSteps(log);
  const looks = looksOf(plan, log);
  // A coat that was mended, or accepted as it is, begins no window any more: none is shown.
  const mended = new Set(corrections(log).map((e) => e.step));
  const ofPiece = new Map<string, PlanStep[]>();
  for (const id of ended.keys()) {
    const step = plan.steps.get(id);
    if (!step) continue;
    const own = ofPiece.get(step.piece.id);
    if (own) own.push(step);
    else ofPiece.set(step.piece.id, [step]);
  }
  return [...ofPiece.values()].flatMap((steps) =>
    steps.flatMap((s) => restingOf(plan, s, steps, ended, looks, mended)),
  );
}

interface Look {
  readonly at: number;
  /** touched without a mark, and no more than that */
  readonly isTouch?: boolean;
  readonly isDry: boolean;
  readonly more: number;
}

/** The last look at each step. */
function looksOf(plan: Plan, log: readonly LogEntry[]): ReadonlyMap<string, Look> {
  const looks = new Map<string, Look>();
  for (const e of standing(log))
    if (e.kind === 'dry' || e.kind === 'not-dry')
      looks.set(e.step, {
        at: minutesUntil(plan.origin, e.at),
        isDry: e.kind === 'dry',
        more: e.kind === 'dry' ? 0 : e.moreMinutes,
      });
    else if (e.kind === 'touch-dry') {
      const at = minutesUntil(plan.origin, e.at);
      const before = looks.get(e.step);
      // What was said of its drying before still holds.
      const more = before && !before.isDry ? Math.max(0, before.at + before.more - at) : 0;
      looks.set(e.step, { at, isDry: false, isTouch: true, more });
    }
  return looks;
}

function restingOf(
  plan: Plan,
  step: PlanStep,
  onPiece: readonly PlanStep[],
  ended: Ended,
  looks: ReadonlyMap<string, Look>,
  mended: ReadonlySet<string>,
): Resting[] {
  const entry = ended.get(step.id)!;
  if (entry.kind === 'skipped') return [];
  const at = minutesUntil(plan.origin, entry.at);
  // The plan knows it where it stood when the plan was made: what was ticked since dries from when it was ticked.
  const by = at - step.end;
  const seen = looks.get(step.id);
  const look = seen && seen.at >= at ? seen : null;
  const planned = { touchAt: step.tide.wetUntil + by, dryAt: step.tide.dryAt + by };
  const found = look?.isTouch
    ? { touchAt: Math.min(planned.touchAt, look.at), dryAt: Math.max(planned.dryAt, look.at + look.more) }
    : look?.isDry
      ? { touchAt: Math.min(planned.touchAt, look.at), dryAt: Math.min(planned.dryAt, look.at) }
      : look
        ? {
            touchAt: Math.max(planned.touchAt, look.at + look.more),
            dryAt: Math.max(planned.dryAt, look.at + look.more),
          }
        : planned;
  const { gate } = step;
  const isLive =
    gate?.closes != null &&
    !mended.has(step.id) &&
    gate.steps.some((id) => plan.steps.has(id) && !ended.has(id));
  if (!isLive && (look?.isDry || step.tide.dryAt <= step.end || isCovered(step, onPiece))) return [];
  return [
    {
      step,
      ended: at,
      ...found,
      isFoundDry: look?.isDry ?? false,
      gate: isLive
        ? {
            opens: look && (!look.isTouch || look.more > 0) ? found.dryAt : gate.opens + by,
            closes: gate.closes + by,
          }
        : null,
    },
  ];
}

/** Is something on it in every zone? Whoever put that there has found it dry. */
function isCovered(step: PlanStep, onPiece: readonly PlanStep[]): boolean {
  const open = new Set(zonesOf(step.recipe, step.layer));
  for (const s of onPiece)
    if (s.layerIndex > step.layerIndex || (s.layerIndex === step.layerIndex && s.round > step.round))
      for (const zone of zonesOf(s.recipe, s.layer)) open.delete(zone);
  return open.size === 0;
}

/** The shelf at minute `now`: coats of one run together, what shuts first on top, what is dry last. */
export function shelfAt(plan: Plan, coats: readonly Resting[], now: number): ShelfRow[] {
  const runs = new Map<string, Resting[]>();
  for (const coat of coats) {
    const { layer } = coat.step;
    const key = [layer.family, layer.name, layer.method, sessionNear(plan, coat.ended)].join('\n');
    const run = runs.get(key);
    if (run) run.push(coat);
    else runs.set(key, [coat]);
  }
  return [...runs.values()]
    .map((run) => rowOf(run, now))
    .sort(
      (a, b) =>
        Number(a.state === 'dry') - Number(b.state === 'dry') ||
        a.moment - b.moment ||
        a.key.localeCompare(b.key),
    );
}

/** The session in which a coat went on, or the one that it began too soon for, or outstayed. */
function sessionNear({ sessions }: Plan, minute: number): number {
  const off = ({ start, end }: Plan['sessions'][number]): number => Math.max(start - minute, minute - end, 0);
  return (
    sessions.reduce<Plan['sessions'][number] | null>(
      (best, s) => (best !== null && off(best) <= off(s) ? best : s),
      null,
    )?.index ?? -1
  );
}

function rowOf(run: readonly Resting[], now: number): ShelfRow {
  const pieces = run
    .map((resting) => ({ resting, ...tellOf(resting, now) }))
    .sort((a, b) => a.moment - b.moment || a.resting.step.id.localeCompare(b.resting.step.id));
  const lead = pieces.reduce((a, b) => (PRESSES[b.state] < PRESSES[a.state] ? b : a));
  return {
    key: pieces[0]!.resting.step.id,
    pieces: pieces.map(({ resting, words }) => ({ resting, words })),
    state: lead.state,
    words: pieces.length === 1 || lead.resting.gate ? lead.words : wordsOf(run, now),
    moment: Math.min(...pieces.map((p) => p.moment)),
    lead: lead.resting,
  };
}

/** What presses most comes first. */
const PRESSES: Readonly<Record<ShelfState, number>> = {
  closing: 0,
  missed: 1,
  open: 2,
  opening: 3,
  wet: 4,
  drying: 5,
  dry: 6,
};

interface Tell {
  readonly state: ShelfState;
  readonly words: string;
  readonly moment: number;
}

function tellOf({ touchAt, dryAt, gate }: Resting, now: number): Tell {
  if (gate) {
    const { opens, closes } = gate;
    if (now < opens) return { state: 'opening', words: `opens in ${minutes(opens - now)}`, moment: opens };
    if (now > closes) return { state: 'missed', words: `shut ${minutes(now - closes)} ago`, moment: closes };
    return closes - now <= CLOSING
      ? { state: 'closing', words: `${minutes(closes - now)} left`, moment: closes }
      : { state: 'open', words: `${minutes(closes - now)} left`, moment: closes };
  }
  if (now < touchAt)
    return { state: 'wet', words: `do not touch for ${minutes(touchAt - now)}`, moment: touchAt };
  if (now < dryAt)
    return { state: 'drying', words: `may be touched, next layer in ${minutes(dryAt - now)}`, moment: dryAt };
  return { state: 'dry', words: 'should be dry: look, and say so', moment: dryAt };
}

/** Of several pieces: how many may be touched, how many are ready for what follows, and when the rest is. */
function wordsOf(run: readonly Resting[], now: number): string {
  const wet = run.filter((r) => now < r.touchAt);
  const drying = run.filter((r) => now >= r.touchAt && now < r.dryAt);
  const dry = run.length - wet.length - drying.length;
  if (dry === run.length) return 'all should be dry: look, and say so';
  const some = (n: number): string => (n === run.length ? 'all' : `${n}`);
  return [
    ...(wet.length > 0 ? [`${some(wet.length)} wet for ${range(wet.map((r) => r.touchAt - now))}`] : []),
    ...(drying.length > 0
      ? [`${some(drying.length)} may be touched, next layer in ${range(drying.map((r) => r.dryAt - now))}`]
      : []),
    ...(dry > 0 ? [`${dry} should be dry`] : []),
  ].join('; ');
}

function range(list: readonly number[]): string {
  const [low, high] = [minutes(Math.min(...list)), minutes(Math.max(...list))];
  const unit = / min$/;
  return low === high
    ? high
    : `${unit.test(high) && !low.includes(' h') ? low.replace(unit, '') : low} to ${high}`;
}

function minutes(m: number): string {
  return m > 120 ? duration(Math.ceil(m)) : `${Math.max(0, Math.ceil(m))} min`;
}
