/** Everything that keeps a muster from being planned, each at its place, in words, with what to do. */
import { familyOf } from '#core/materials';
import {
  minutesOfDay,
  minutesSince,
  originOf,
  sessionsOf,
  type BenchSession,
  type Layer,
  type Muster,
  type Piece,
  type Recipe,
  type Unit,
} from '#core/muster';
import {
  checkCraft,
  checkRecipe,
  effectiveRecipe,
  isFor,
  isSolvent,
  workMinutes,
  type Finding,
  type Fix,
  type Place,
} from '#core/recipe';
import { isEffect } from '#core/optics';
import { checkAir } from './checkAir';
import { checkStores } from './checkStores';
import { checkWays } from './checkWays';
import { horizonDays } from './horizon';

/** The checks of a muster, each by itself: a page that may not stand still takes them one after the other. */
export const MUSTER_CHECKS: readonly ((muster: Muster) => Finding[])[] = [
  checkBench,
  (muster) => muster.recipes.flatMap(checkRecipe),
  checkCrafts,
  checkAir,
  checkStores,
  checkUnits,
  checkWays,
];

/** All findings. A plan is made only where none of them is an error. */
export function checkMuster(muster: Muster): Finding[] {
  return MUSTER_CHECKS.flatMap((check) => check(muster));
}

function checkUnits(muster: Muster): Finding[] {
  if (muster.units.length === 0)
    return [error('muster-empty', { view: 'muster' }, 'Muster', 'has no units yet.', 'Add the first unit.')];
  const sessions = sessionsOf(muster, horizonDays(muster));
  return [
    ...muster.units.flatMap((unit) => checkUnit(muster, sessions, unit)),
    ...checkLongest(muster, sessions),
  ];
}

export function hasErrors(findings: readonly Finding[]): boolean {
  return findings.some((f) => f.severity === 'error' && !f.isCraft);
}

/** So many pieces alike, or twice so many figures on trays, look like copies: common practice, no source. */
const MANY_ALIKE = 6;

/** Craft rules: each recipe once as it is written, and once more for every piece that follows it in a way of its own. */
function checkCrafts(muster: Muster): Finding[] {
  const findings: Finding[] = [];
  for (const recipe of muster.recipes) {
    const uses = new Set<NonNullable<Piece['use']>>();
    const seen = new Set<string>();
    for (const unit of muster.units)
      for (const piece of unit.pieces) {
        if (piece.recipe !== recipe.id) continue;
        if (piece.use) uses.add(piece.use);
        const own = effectiveRecipe(recipe, piece, unit.level);
        if (piece.startsAt !== undefined && own.layers.some(isThinned))
          findings.push({
            rule: 'solvent-on-old',
            severity: 'warning',
            isCraft: true,
            place: { view: 'muster', unit: unit.id, piece: piece.id },
            where: `${unit.name}, ${piece.name}`,
            text: 'Solvent goes on a piece finished long ago: its old joints and surface may let go.',
            cure: 'Test it on a hidden patch first, or take the acrylic substitutes on this piece.',
            ...substitutesFix(recipe, unit, piece),
          });
        const key = JSON.stringify([
          piece.startsAt,
          piece.substitutes,
          piece.effects,
          piece.joins?.glue !== undefined,
          unit.level,
          piece.use,
        ]);
        if (own === recipe || seen.has(key)) continue;
        seen.add(key);
        // A piece that is cut at a level, or begun part-way, is asked for its last coat as the whole recipe is.
        const use = piece.use ? [piece.use] : [];
        const known = new Set(checkCraft(recipe, use).map((f) => f.rule + f.text));
        for (const f of checkCraft(own, use))
          if (!known.has(f.rule + f.text))
            findings.push({
              ...f,
              ...cureOnPiece(muster, recipe, unit, piece, f),
              place: { view: 'muster', unit: unit.id, piece: piece.id },
              where: `${unit.name}, ${piece.name}: ${f.where}`,
            });
      }
    findings.push(...checkCraft(recipe, [...uses]));
  }
  for (const unit of muster.units) findings.push(...checkAlike(muster, unit));
  return findings;
}

/** Figures count as pieces do: five trays of ten are fifty copies. */
function checkAlike(muster: Muster, unit: Unit): Finding[] {
  const figures = unit.pieces.reduce((n, p) => n + p.count, 0);
  const recipe = muster.recipes.find((r) => r.id === unit.pieces[0]?.recipe);
  const isMany = unit.pieces.length >= MANY_ALIKE || (unit.pieces.length > 1 && figures >= 2 * MANY_ALIKE);
  if (!isMany || !recipe) return [];
  const kinds = new Set(unit.pieces.map((p) => JSON.stringify([p.recipe, p.effects ?? []])));
  if (kinds.size > 1) return [];
  const varied = recipe.layers.filter((l) => isEffectLayer(l)).slice(-3);
  return [
    {
      rule: 'all-identical',
      severity: 'advice',
      isCraft: true,
      place: { view: 'muster', unit: unit.id },
      where: `Unit “${unit.name}”`,
      text: `All ${unit.pieces.length} pieces${figures > unit.pieces.length ? `, ${figures} figures,` : ''} follow one recipe in one strength: they will look like copies.`,
      cure: 'Give some of them a version of the recipe, or vary the strength of its effects piece by piece.',
      ...(varied.length > 0
        ? {
            fix: {
              label: `Vary ${varied.map((l) => `“${l.name}”`).join(', ')} piece by piece`,
              addsMinutes: 0,
              addsDryMinutes: 0,
              apply: (m: Muster) => varyEffects(m, unit.id, recipe.id, varied),
            },
          }
        : {}),
    },
  ];
}

const TURN = ['off', 'trace', 'heavy'] as const;

/** Each piece another strength of another effect, so that neighbours differ; the first stays as the recipe is. */
function varyEffects(muster: Muster, unit: string, recipe: string, layers: readonly Layer[]): Muster {
  const ids = new Set(layers.map((l) => l.id));
  return {
    ...muster,
    recipes: muster.recipes.map((r) =>
      r.id === recipe
        ? { ...r, layers: r.layers.map((l) => (ids.has(l.id) ? { ...l, isOptional: true } : l)) }
        : r,
    ),
    units: muster.units.map((u) =>
      u.id === unit
        ? {
            ...u,
            pieces: u.pieces.map((p, k) => {
              const layer = layers[k % layers.length]!;
              const is = TURN[Math.floor(k / layers.length) % TURN.length]!;
              return k === 0 ? p : { ...p, effects: [{ layer: layer.id, is }] };
            }),
          }
        : u,
    ),
  };
}

/** What may differ from piece to piece: washes, dust, lit edges, spots; not the colours of details. */
const isEffectLayer = (l: Layer): boolean =>
  isEffect(l) &&
  l.task === undefined &&
  !isSolvent(l) &&
  (isFor('wash', 'powder')(l) || l.reach === 'edges' || l.method === 'sponge');

/** All layers of solvent that have another way take it, on this piece alone. */
function substitutesFix(recipe: Recipe, unit: Unit, piece: Piece): { readonly fix?: Fix } {
  const layers = recipe.layers.filter(
    (l) =>
      l.substitute && !familyOf(l.substitute.family).hazards.some((h) => h === 'thinner') && isThinned(l),
  );
  if (layers.length === 0) return {};
  const sum = (of: (l: Layer) => number): number => layers.reduce((n, l) => n + of(l), 0);
  return {
    fix: {
      label: 'Take the acrylic ways on this piece',
      addsMinutes: sum((l) => l.substitute!.minutes * l.substitute!.coats - l.minutes * l.coats),
      addsDryMinutes: sum((l) => l.substitute!.dryMinutes - l.dryMinutes),
      apply: (m) =>
        withPart(m, unit.id, piece.id, {
          substitutes: [...new Set([...(piece.substitutes ?? []), ...layers.map((l) => l.id)])],
        }),
    },
  };
}

/** A finding that only this piece's own way brings: the recipe's cure where that helps it, else the piece as the recipe is. */
function cureOnPiece(
  muster: Muster,
  recipe: Recipe,
  unit: Unit,
  piece: Piece,
  finding: Finding,
): { readonly fix?: Fix } {
  const helps = (fix: Fix): boolean => {
    const cured = fix.apply(muster);
    const own = cured.units.find((u) => u.id === unit.id);
    const its = own?.pieces.find((p) => p.id === piece.id);
    const as = cured.recipes.find((r) => r.id === recipe.id);
    if (!own || !its || !as) return false;
    return !checkCraft(effectiveRecipe(as, its, own.level), its.use ? [its.use] : []).some(
      (f) => f.rule === finding.rule && f.text === finding.text,
    );
  };
  const whole = (label: string, part: Partial<Piece>): Fix => ({
    label,
    addsMinutes: 0,
    addsDryMinutes: 0,
    apply: (m) => withPart(m, unit.id, piece.id, part),
  });
  const ways: Fix[] = [
    ...(finding.fix ? [finding.fix] : []),
    ...(piece.substitutes?.length
      ? [whole('Take no substitutes on this piece', { substitutes: undefined })]
      : []),
    ...(piece.effects?.length
      ? [whole('Give it the effects as the recipe has them', { effects: undefined })]
      : []),
    ...(piece.startsAt ? [whole('Begin it from the bottom', { startsAt: undefined })] : []),
    ...(unit.level
      ? [
          {
            ...whole('Finish the unit to its last layer', {}),
            apply: (m: Muster): Muster => ({
              ...m,
              units: m.units.map((u) => (u.id === unit.id ? { ...u, level: undefined } : u)),
            }),
          },
        ]
      : []),
  ];
  const fix = ways.find(helps);
  return { fix } as { readonly fix?: Fix };
}

const isThinned = (l: Layer): boolean => familyOf(l.family).hazards.some((h) => h === 'thinner');

function withPart(muster: Muster, unit: string, piece: string, part: Partial<Piece>): Muster {
  return {
    ...muster,
    units: muster.units.map((u) =>
      u.id === unit ? { ...u, pieces: u.pieces.map((p) => (p.id === piece ? { ...p, ...part } : p)) } : u,
    ),
  };
}

function error(rule: string, place: Place, where: string, text: string, cure: string): Finding {
  return { rule, severity: 'error', place, where, text, cure };
}

const DAYS = ['', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

function checkBench(muster: Muster): Finding[] {
  const findings: Finding[] = [];
  const { bench } = muster;
  const place: Place = { view: 'bench' };
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
  const place: Place = { view: 'muster', unit: unit.id };
  const where = `Unit “${unit.name}”`;
  const add = (rule: string, text: string, cure: string, piece?: Piece): void =>
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
        const minutes = workMinutes(layer, piece.count);
        const key = `${layer.id} ${piece.count}`;
        if (layer.pausable || minutes <= longest || said.has(key) || longest === 0) continue;
        said.add(key);
        findings.push(
          error(
            'layer-longer-than-session',
            { view: 'recipes', recipe: recipe!.id, layer: layer.id },
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
