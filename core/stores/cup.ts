/** What is in the cup for a run: out of the bottles, or first out of a jar; and what of it went on each piece. */
import { amountOf } from '#core/amounts';
import { dropsOf } from '#core/materials';
import type { PlanStep, RunMix } from '#core/plan';
import type { JarNow } from './jars';

export interface Part {
  readonly name: string;
  readonly ml: number;
}

export interface Cup {
  /** out of the bottles */
  readonly parts: readonly Part[];
  readonly fromJar: { readonly jar: string; readonly ml: number } | null;
}

/** What the plan would mix, less what a jar gives. */
export function plannedCup({ ml, components }: RunMix, jar: JarNow | null): Cup {
  const given = jar ? Math.min(ml, jar.leftMl) : 0;
  const rest = ml > 0 ? (ml - given) / ml : 0;
  return {
    parts: components.map((c) => ({ name: c.name, ml: hundredths(c.ml * rest) })),
    fromJar: jar && given > 0 ? { jar: jar.id, ml: hundredths(given) } : null,
  };
}

/** The cup shared out over the pieces of its run, each by what the plan reckons for it. */
export function sharedOut(cup: Cup, run: readonly PlanStep[]): ReadonlyMap<string, Cup> {
  const amounts = run.map((s) => amountOf(s.recipe, s.layer, s.piece).ml / s.rounds);
  const all = amounts.reduce((a, b) => a + b, 0);
  return new Map(
    run.map((s, k) => [s.id, scaled(cup, all > 0 ? amounts[k]! / all : 1 / run.length)] as const),
  );
}

/** What is left in the cup for the rest of the run when some of its pieces are done. */
export function cupLeft(cup: Cup, run: readonly PlanStep[], done: readonly PlanStep[]): Cup {
  const shares = sharedOut(cup, run);
  const gone = done.flatMap((s) => shares.get(s.id) ?? []);
  const parts = cup.parts.map((p, k) => ({
    name: p.name,
    ml: hundredths(Math.max(0, p.ml - gone.reduce((sum, c) => sum + c.parts[k]!.ml, 0))),
  }));
  const jarMl = cup.fromJar ? cup.fromJar.ml - gone.reduce((sum, c) => sum + (c.fromJar?.ml ?? 0), 0) : 0;
  return { parts, fromJar: cup.fromJar && jarMl > 0 ? { ...cup.fromJar, ml: hundredths(jarMl) } : null };
}

/** All that goes in, in words. */
export function cupWords({ parts, fromJar }: Cup): string {
  return [
    ...parts.filter((p) => p.ml > 0).map((p) => `${p.name} ${p.ml.toFixed(2)} ml (${dropWords(p.ml)})`),
    ...(fromJar ? [`${fromJar.ml.toFixed(2)} ml out of the jar`] : []),
  ].join(' + ');
}

function dropWords(ml: number): string {
  const drops = Math.max(1, dropsOf(ml));
  return drops === 1 ? '1 drop' : `${drops} drops`;
}

function scaled({ parts, fromJar }: Cup, by: number): Cup {
  return {
    parts: parts.map((p) => ({ name: p.name, ml: fine(p.ml * by) })),
    fromJar: fromJar && { ...fromJar, ml: fine(fromJar.ml * by) },
  };
}

const hundredths = (ml: number): number => Math.round(ml * 100) / 100;
/** Finer than a hundredth, so that the pieces of a run add up to its cup. */
const fine = (ml: number): number => Math.round(ml * 1e5) / 1e5;
