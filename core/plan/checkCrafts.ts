/** Craft rules over a muster's recipes, and over its pieces where one follows its recipe in a way of its own; each with its cure. */
import { familyOf } from '#core/materials';
import type { Layer, Muster, Piece, Recipe, Unit } from '#core/muster';
import { checkCraft, effectiveRecipe, type Finding, type Fix } from '#core/recipe';
import { couldVary, DEFAULT_DEAL, withDeal, withOptional } from '#core/variety';

/** So many pieces alike, or twice so many figures on trays, look like copies: common practice, no source. */
const MANY_ALIKE = 6;
/** So many more effects are made optional at once. */
const VARIED = 3;

/** Craft rules: each recipe once as it is written, and once more for every piece that follows it in a way of its own. */
export function checkCrafts(muster: Muster): Finding[] {
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
            place: { unit: unit.id, piece: piece.id },
            where: `${unit.name}, ${piece.name}`,
            text: 'Solvent goes on a piece finished long ago: its old joints and surface may let go.',
            cure: 'Test it on a hidden patch first, or take the acrylic substitutes on this piece.',
            ...substitutesFix(recipe, unit, piece),
          });
        const key = JSON.stringify([
          piece.startsAt,
          piece.substitutes,
          piece.effects,
          piece.tones,
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
              place: { unit: unit.id, piece: piece.id },
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
  const kinds = new Set(unit.pieces.map((p) => JSON.stringify([p.recipe, p.effects ?? [], p.tones ?? []])));
  if (kinds.size > 1) return [];
  const varied = [...recipe.layers.filter((l) => l.isOptional), ...couldVary(recipe).slice(-VARIED)];
  return [
    {
      rule: 'all-identical',
      severity: 'advice',
      isCraft: true,
      place: { unit: unit.id },
      where: `Unit “${unit.name}”`,
      text: `All ${unit.pieces.length} pieces${figures > unit.pieces.length ? `, ${figures} figures,` : ''} follow one recipe in one strength: they will look like copies.`,
      cure: 'Give some of them a version of the recipe, or vary the strength of its effects piece by piece.',
      ...(varied.length > 0
        ? {
            fix: {
              label: `Deal ${varied.map((l) => `“${l.name}”`).join(', ')} and the age of the damage out over them`,
              addsMinutes: 0,
              addsDryMinutes: 0,
              apply: (m: Muster) =>
                withDeal(
                  withOptional(
                    m,
                    recipe.id,
                    varied.map((l) => l.id),
                  ),
                  unit.id,
                  DEFAULT_DEAL,
                ),
            },
          }
        : {}),
    },
  ];
}

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
