/** Everything that can be gone to or done by name, and what a few words mean among it. */
import { readDate } from '#core/entry';
import { dateTimeAfter, minutesOfDay, sessionsOn, type LocalDate, type Muster } from '#core/muster';
import type { Plan } from '#core/plan';

export type ThingKind = 'unit' | 'piece' | 'recipe' | 'layer' | 'product' | 'evening' | 'do';

/** Something by name: where it stands, or what is to be done. */
export interface Thing {
  readonly kind: ThingKind;
  readonly name: string;
  /** where it belongs, in words */
  readonly detail: string;
  /** path and query of the view in which it stands; null: it is a deed */
  readonly link: {
    readonly path: readonly string[];
    readonly query?: Readonly<Record<string, string>>;
  } | null;
  readonly deed?: Deed;
}

/** What can be done without going anywhere. */
export interface Deed {
  readonly do: 'extra-session';
  readonly date: LocalDate;
  readonly from: string;
  readonly to: string;
}

/** What of a muster and its plan has a name. */
export function thingsOf(muster: Muster): Thing[] {
  const recipes = new Map(muster.recipes.map((r) => [r.id, r.name]));
  return [
    ...muster.units.map((u): Thing => ({
      kind: 'unit',
      name: u.name,
      detail: u.pieces.length === 1 ? '1 piece' : `${u.pieces.length} pieces`,
      link: { path: ['/muster'], query: { unit: u.id } },
    })),
    ...muster.units.flatMap((u) =>
      u.pieces
        .filter((p) => p.name !== u.name)
        .map((p): Thing => ({
          kind: 'piece',
          name: p.name,
          detail: `${u.name} · ${recipes.get(p.recipe ?? '') ?? 'no recipe'}`,
          link: { path: ['/muster'], query: { unit: u.id, piece: p.id } },
        })),
    ),
    ...muster.recipes.map((r): Thing => ({
      kind: 'recipe',
      name: r.name,
      detail: `${r.layers.length} layers`,
      link: { path: ['/recipes', r.id] },
    })),
    ...muster.recipes.flatMap((r) =>
      r.layers.map((l): Thing => ({
        kind: 'layer',
        name: l.name,
        detail: r.name,
        link: { path: ['/recipes', r.id], query: { layer: l.id } },
      })),
    ),
    ...(muster.stores?.products ?? []).map((p): Thing => ({
      kind: 'product',
      name: p.name,
      detail: `${p.leftMl} ml left`,
      link: { path: ['/stores'] },
    })),
  ];
}

/**
 * What the words may mean, the likeliest first: a day is its evening, "extra session on Friday" a deed, anything else names.
 * @param plan for the evenings; null: there is none yet
 * @param most so many at the most
 */
export function find(
  words: string,
  things: readonly Thing[],
  muster: Muster,
  plan: Plan | null,
  today: LocalDate,
  most = 12,
): Thing[] {
  const asked = words.trim().toLowerCase();
  if (asked === '') return [];
  return [
    ...deedsIn(asked, muster, today),
    ...eveningsIn(asked, plan, today),
    ...namesIn(asked, things, most),
  ].slice(0, most);
}

/** How well a name answers: whole, its beginning, the beginning of a word, anywhere; each word asked must be somewhere. */
function namesIn(asked: string, things: readonly Thing[], most: number): Thing[] {
  const parts = asked.split(/\s+/);
  const found: { thing: Thing; score: number }[] = [];
  for (const thing of things) {
    const name = thing.name.toLowerCase();
    const all = `${name} ${thing.detail.toLowerCase()}`;
    if (!parts.every((p) => all.includes(p))) continue;
    const score =
      name === asked ? 0 : name.startsWith(asked) ? 1 : parts.every((p) => name.includes(p)) ? 2 : 3;
    found.push({ thing, score });
  }
  // The sort keeps the order of things that answer alike.
  return found
    .sort((a, b) => a.score - b.score)
    .slice(0, most)
    .map((f) => f.thing);
}

function eveningsIn(asked: string, plan: Plan | null, today: LocalDate): Thing[] {
  const date = readDate(asked, today)?.slice(0, 10);
  if (!date || !plan) return [];
  return plan.sessions.flatMap((s): Thing[] => {
    const at = dateTimeAfter(plan.origin, s.start);
    if (at.slice(0, 10) !== date) return [];
    const until = dateTimeAfter(plan.origin, s.end).slice(11);
    return [
      {
        kind: 'evening',
        name: `Session of ${date}`,
        detail: `${at.slice(11)}–${until}, ${s.steps.length} steps`,
        link: { path: ['/sheet', String(s.index + 1)] },
      },
    ];
  });
}

/** When nothing is said, as long as the bench is usually lit. */
const USUAL = { from: '19:00', to: '21:30' };

function deedsIn(asked: string, muster: Muster, today: LocalDate): Thing[] {
  const extra = /^(?:an? )?extra (?:session|evening)\s*(?:on\s+)?(.*)$/.exec(asked);
  if (!extra) return [];
  const hours = /(\d{1,2}:\d{2})\s*(?:-|–|to)\s*(\d{1,2}:\d{2})\s*$/.exec(extra[1]!);
  const day = (hours ? extra[1]!.slice(0, hours.index) : extra[1]!).replace(/\s*from\s*$/, '').trim();
  const date = readDate(day || 'tomorrow', today)?.slice(0, 10);
  if (!date) return [];
  const usual = muster.bench.weekly[0] ?? USUAL;
  const padded = (time: string): string => time.padStart(5, '0');
  const [from, to] = hours ? [padded(hours[1]!), padded(hours[2]!)] : [usual.from, usual.to];
  const isTaken = sessionsOn(muster.bench, date).some(
    (s) => minutesOfDay(from) < minutesOfDay(s.to) && minutesOfDay(s.from) < minutesOfDay(to),
  );
  if (isTaken || minutesOfDay(to) <= minutesOfDay(from)) return [];
  return [
    {
      kind: 'do',
      name: `Extra session on ${date}, ${from} to ${to}`,
      detail: 'lights the bench once more; the plan answers',
      link: null,
      deed: { do: 'extra-session', date, from, to },
    },
  ];
}
