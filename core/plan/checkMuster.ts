/** Everything that keeps a muster from being planned, each at its place, in words, with what to do. */
import {
  minutesOfDay,
  minutesSince,
  MOST_DAYS,
  originOf,
  sessionsOf,
  type BenchSession,
  type Muster,
  type Piece,
  type Unit,
} from '#core/muster';
import {
  checkRecipe,
  checkSchools,
  isSilenced,
  plannedMinutes,
  type Finding,
  type Place,
  type RuleId,
} from '#core/recipe';
import { checkAir } from './checkAir';
import { checkCrafts } from './checkCrafts';
import { checkStores } from './checkStores';
import { checkTrials } from './checkTrials';
import { checkWays } from './checkWays';
import { handMinutes, horizonDays, loadOf } from './horizon';

/** The checks of a muster, each by itself: a page that may not stand still takes them one after the other. */
export const MUSTER_CHECKS: readonly ((muster: Muster) => Finding[])[] = [
  checkBench,
  (muster) => muster.recipes.flatMap(checkRecipe),
  checkCrafts,
  checkAir,
  checkStores,
  checkTrials,
  (muster) => muster.recipes.flatMap((r) => checkSchools(r).filter((f) => !isSilenced(r, f))),
  checkUnits,
  checkWays,
];

/** All findings. A plan is made only where none of them is an error. */
export function checkMuster(muster: Muster): Finding[] {
  return MUSTER_CHECKS.flatMap((check) => check(muster));
}

function checkUnits(muster: Muster): Finding[] {
  if (muster.units.length === 0)
    return [error('muster-empty', {}, 'Muster', 'has no units yet.', 'Add the first unit.')];
  const sessions = sessionsOf(muster, horizonDays(muster));
  return [
    ...muster.units.flatMap((unit) => checkUnit(muster, sessions, unit)),
    ...checkLongest(muster, sessions),
    ...checkLoad(muster),
  ];
}

/** More work than two years of sessions hold: no plan of it ends. */
function checkLoad(muster: Muster): Finding[] {
  const { minutes } = loadOf(muster);
  const has = handMinutes(muster, MOST_DAYS);
  if (has === 0 || minutes <= has) return [];
  return [
    error(
      'too-much-work',
      {},
      'Bench, sessions',
      `All pieces together take ${hours(minutes)} h of hands, and there are ${hours(has)} h of sessions in two years.`,
      'Longer or more sessions, more people, quicker recipes, or part of it in a muster of its own.',
    ),
  ];
}

const hours = (minutes: number): number => Math.round(minutes / 60);

function error(rule: RuleId, place: Place, where: string, text: string, cure: string): Finding {
  return { rule, severity: 'error', place, where, text, cure };
}

const DAYS = ['', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

function checkBench(muster: Muster): Finding[] {
  const findings: Finding[] = [];
  const { bench } = muster;
  const place: Place = {};
  if (bench.people.length === 0)
    findings.push(
      error('bench-no-hands', place, 'Bench, hands', 'Nobody works at this bench.', 'Add a person.'),
    );
  const order = (where: string, from: string, to: string): void => {
    if (minutesOfDay(to) <= minutesOfDay(from))
      findings.push(
        error(
          'session-ends-before-start',
          place,
          where,
          `The session ends at ${to}, before it starts at ${from}.`,
          'Turn the times round; a session past midnight is two: one to 24:00, one from 00:00 the next day.',
        ),
      );
  };
  const overlap = (where: string, list: readonly { from: string; to: string }[]): void => {
    const sorted = [...list].sort((a, b) => minutesOfDay(a.from) - minutesOfDay(b.from));
    sorted.forEach((s, i) => {
      const before = sorted[i - 1];
      if (before && minutesOfDay(s.from) < minutesOfDay(before.to))
        findings.push({
          rule: 'sessions-overlap',
          severity: 'warning',
          place,
          where,
          text: `The sessions ${before.from}–${before.to} and ${s.from}–${s.to} overlap and count as one.`,
          cure: 'Join them, or set them apart.',
        });
    });
  };
  for (const w of bench.weekly) order(`Bench, ${DAYS[w.weekday]}`, w.from, w.to);
  for (let day = 1; day <= 7; day++)
    overlap(
      `Bench, ${DAYS[day]}`,
      bench.weekly.filter((w) => w.weekday === day),
    );
  for (const e of bench.exceptions) {
    for (const s of e.sessions) order(`Bench, exception of ${e.date}`, s.from, s.to);
    overlap(`Bench, exception of ${e.date}`, e.sessions);
  }
  return findings;
}

function checkUnit(muster: Muster, sessions: readonly BenchSession[], unit: Unit): Finding[] {
  const findings: Finding[] = [];
  const place: Place = { unit: unit.id };
  const where = `Unit “${unit.name}”`;
  const add = (rule: RuleId, text: string, cure: string, piece?: Piece): void =>
    void findings.push(
      error(
        rule,
        piece ? { ...place, piece: piece.id } : place,
        piece ? `${unit.name}, ${piece.name}` : where,
        text,
        cure,
      ),
    );
  const origin = originOf(muster);
  const table = minutesSince(origin, unit.table);
  const begin = Math.max(
    minutesSince(origin, muster.startsOn),
    unit.readyFrom ? minutesSince(origin, unit.readyFrom) : 0,
  );
  if (unit.pieces.length === 0) add('unit-empty', 'has no pieces.', 'Add a piece.');
  if (unit.table <= muster.startsOn)
    add(
      'table-date-past',
      `Its table date ${spoken(unit.table)} lies before the plan begins, ${spoken(muster.startsOn)}.`,
      'Move the table date, or let the plan begin earlier.',
    );
  else if (!sessions.some((s) => s.start < table && s.end > begin))
    add(
      'no-session-before-table',
      `The bench has no session before its table date, ${spoken(unit.table)}.`,
      'Add a session, or move the table date.',
    );
  for (const piece of unit.pieces) {
    if (piece.recipe === null) {
      add('piece-without-recipe', 'follows no recipe.', 'Choose a recipe for it.', piece);
      continue;
    }
    if (piece.places > muster.bench.rackPlaces)
      add(
        'rack-too-small',
        `needs ${piece.places} rack places, and the bench has ${muster.bench.rackPlaces}.`,
        'Make the rack larger, or the tray smaller.',
        piece,
      );
    if (!piece.joins) continue;
    if (joinsItself(unit, piece))
      add('join-circle', 'joins itself by way of other pieces.', 'Take one of the joins out.', piece);
  }
  return findings;
}

function joinsItself(unit: Unit, piece: Piece): boolean {
  const seen = new Set<string>();
  for (
    let at: Piece | undefined = piece;
    at?.joins;
    at = unit.pieces.find((p) => p.id === at!.joins!.piece)
  ) {
    if (seen.has(at.id)) return true;
    seen.add(at.id);
  }
  return false;
}

/** Layers that take longer at one go than any session lasts. */
function checkLongest(muster: Muster, sessions: readonly BenchSession[]): Finding[] {
  const findings: Finding[] = [];
  const longest = Math.max(0, ...sessions.map((s) => s.end - s.start));
  const said = new Set<string>();
  for (const unit of muster.units)
    for (const piece of unit.pieces) {
      const recipe = muster.recipes.find((r) => r.id === piece.recipe);
      for (const layer of recipe?.layers ?? []) {
        const minutes = plannedMinutes(layer, piece.count);
        const key = `${layer.id} ${piece.count}`;
        if (layer.pausable || minutes <= longest || said.has(key) || longest === 0) continue;
        said.add(key);
        findings.push(
          error(
            'layer-longer-than-session',
            { recipe: recipe!.id, layer: layer.id },
            `${recipe!.name}, layer “${layer.name}”`,
            `takes ${minutes} min at one go on ${piece.name} (${unit.name}), but the longest session has ${longest} min.`,
            'Make a session longer, split the tray, or allow the layer to be put down and taken up again.',
          ),
        );
      }
    }
  return findings;
}

function spoken(dateTime: string): string {
  return dateTime.replace('T', ' ');
}
