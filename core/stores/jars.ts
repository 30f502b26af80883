/** Left-over mixes in labelled jars: what is in them, until when they are good, and which of them fits what is to be mixed. */
import { familyOf, type FamilyId } from '#core/materials';
import { instantOf, storesOf, type Instant, type Layer, type Muster } from '#core/muster';
import { standing, type LogEntry } from '#core/log';
import { keyOf } from './usage';

export interface JarNow {
  readonly id: string;
  /** its label: the mixture in it */
  readonly mixture: string;
  /** what kind of paint it is; null where nobody said */
  readonly family: FamilyId | null;
  readonly leftMl: number;
  /** good until then; null where nobody said */
  readonly until: Instant | null;
  readonly note: string;
  /** filled at the bench: the log knows it, not the muster */
  readonly isLogged: boolean;
}

/** Days that a thinned mix keeps in a closed jar, by what carries its drying (common practice, no source). */
const KEEPS_DAYS = { water: 14, solvent: 60, oxidation: 21, none: 0 } as const;

/** Until when a mix made now is good; null: it does not keep, and goes out tonight. */
export function goodUntil(family: FamilyId, now: Instant): Instant | null {
  const { drying, role } = familyOf(family);
  // What hardens in its cup, with or without a lid.
  if (role === 'pour' || KEEPS_DAYS[drying] === 0) return null;
  return instantOf(new Date(Date.parse(now) + KEEPS_DAYS[drying] * 86_400_000));
}

/** Every jar that holds something: what was last said of it, less what has been taken out since. */
export function jarsOf(muster: Muster, log: readonly LogEntry[]): JarNow[] {
  const jars = new Map<string, { jar: Omit<JarNow, 'leftMl'>; since: Instant; ml: number }>();
  for (const { id, mixture, note, leftMl, leftAt } of storesOf(muster).jars)
    jars.set(id, {
      jar: { id, mixture, family: null, note, until: null, isLogged: false },
      since: leftAt ?? '',
      ml: leftMl,
    });
  for (const e of standing(log)) {
    if (e.kind === 'jar')
      jars.set(e.jar, {
        jar: {
          id: e.jar,
          mixture: e.mixture,
          family: e.family ?? null,
          note: e.note ?? '',
          until: e.until ?? null,
          isLogged: true,
        },
        since: e.at,
        ml: e.ml,
      });
    const from = e.kind === 'done' ? e.fromJar : undefined;
    const jar = from && jars.get(from.jar);
    if (jar && e.at > jar.since) jar.ml -= from.ml;
  }
  return [...jars.values()]
    .map(({ jar, ml }) => ({ ...jar, leftMl: Math.max(0, ml) }))
    .filter((j) => !j.isLogged || j.leftMl > LEAST_ML)
    .sort((a, b) => a.mixture.localeCompare(b.mixture) || a.id.localeCompare(b.id));
}

/** A drop is not worth a jar. */
const LEAST_ML = 0.05;

/** Is its day over? */
export function isPast(jar: JarNow, now: Instant): boolean {
  return jar.until !== null && jar.until <= now;
}

/** The jar to begin with when this layer is mixed: the same mixture, still good, the one first whose day is over first. */
export function jarFor(jars: readonly JarNow[], layer: Layer, now: Instant): JarNow | null {
  const wanted = keyOf(labelOf(layer));
  const fit = jars.filter((j) => keyOf(j.mixture) === wanted && j.leftMl > LEAST_ML && !isPast(j, now));
  return fit.sort((a, b) => (a.until ?? '~').localeCompare(b.until ?? '~'))[0] ?? null;
}

/** What stands on a jar of it. */
export function labelOf(layer: Layer): string {
  return layer.mixture.trim() === '' ? layer.name : layer.mixture;
}
