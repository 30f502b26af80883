/** Each piece's own history: what went on it, in order, exactly as mixed; and a recipe made of it, to match reinforcements. */
import type { ClockPoints } from '#core/climate';
import { methodOf } from '#core/materials';
import {
  MIXTURE_LETTERS,
  minutesUntil,
  mixOf,
  remixed,
  wallTime,
  withEstimate,
  withSuffix,
  type Layer,
  type Origin,
  type Recipe,
} from '#core/muster';
import type { StepRef } from '#core/plan';
import { workMinutes } from '#core/recipe';
import { factsOf } from './about';
import { shareDried } from './lessons';
import { standing, type EntryOf, type LogEntry } from '#core/log';

export interface PieceCard {
  readonly piece: string;
  readonly name: string;
  /** null where the log alone remembers the piece */
  readonly recipe: Recipe | null;
  readonly lines: readonly string[];
  readonly pictures: readonly { readonly id: string; readonly at: string; readonly data: string }[];
  /** layers put on, in the order in which that was done, with what is known of each */
  readonly done: readonly CardLayer[];
  readonly corrections: ReadonlyMap<string, readonly string[]>;
}

/** What is known of a layer on one piece. */
export interface CardLayer {
  readonly layer: Layer;
  readonly entry: EntryOf<'done'>;
  /** pieces that the entry counts for */
  readonly count: number;
  /** share of its nominal drying after which it was found dry; null where nobody looked */
  readonly driedAt: number | null;
}

/**
 * One card for every piece that has a history, by name.
 * @param zone the bench's, for the dates
 * @param drying by whose clocks the looks at its coats are read; without it they are not
 */
export function pieceCards(
  log: readonly LogEntry[],
  steps: ReadonlyMap<string, StepRef>,
  zone: string,
  drying: { readonly clocks: ReadonlyMap<string, ClockPoints>; readonly origin: Origin } | null = null,
): PieceCard[] {
  interface Draft {
    step: StepRef | undefined;
    name: string;
    lines: string[];
    pictures: { id: string; at: string; data: string }[];
    done: (CardLayer & { driedAt: number | null })[];
    corrections: Map<string, string[]>;
  }
  const cards = new Map<string, Draft>();
  for (const e of standing(log)) {
    const step = 'step' in e && e.step !== undefined ? steps.get(e.step) : undefined;
    const about = step ? factsOf(step) : e.about;
    if (!about) continue;
    const name = `${about.piece} (${about.unit})`;
    const key = step?.piece.id ?? name;
    const card: Draft = cards.get(key) ?? {
      step,
      name,
      lines: [],
      pictures: [],
      done: [],
      corrections: new Map(),
    };
    cards.set(key, card);
    const say = (text: string): number =>
      card.lines.push(
        `${wallTime(zone, e.at).slice(0, 10)} ${about.layer}: ${text}${e.note ? `. ${e.note}` : ''}`,
      );
    if (e.kind === 'done') {
      if (step) card.done.push({ layer: step.layer, entry: e, count: step.piece.count, driedAt: null });
      say(
        [
          `${methodOf(about.method).name}`,
          about.coats > 1 ? `${about.coats} coats` : '',
          about.film ? `${about.film} film` : '',
          e.mixture ?? about.mixture,
          `${e.minutes} min`,
          e.air ? `${Math.round(e.air.celsius)} °C, ${Math.round(e.air.humidityPercent)} %` : '',
          (e.people ?? []).join(' and '),
        ]
          .filter((part) => part !== '')
          .join(', '),
      );
    } else if (e.kind === 'dry' && step && drying) {
      const of = card.done.find((d) => d.entry.step === e.step && d.driedAt === null);
      if (of) {
        const from = minutesUntil(drying.origin, of.entry.at);
        of.driedAt = shareDried(step, drying.clocks, from, minutesUntil(drying.origin, e.at));
      }
    } else if (e.kind === 'rework') {
      const text = `${e.trouble} → ${e.cure}`;
      if (step) {
        const { id } = step.layer;
        card.corrections.set(id, [...(card.corrections.get(id) ?? []), text]);
      }
      say(`corrected: ${text}`);
    } else if (e.kind === 'skipped') say('left off');
    else if (e.kind === 'verdict') say(`pilot ${e.verdict}`);
    else if (e.kind === 'noted' && e.note)
      card.lines.push(`${wallTime(zone, e.at).slice(0, 10)} ${about.layer}: ${e.note}`);
    else if (e.kind === 'picture') card.pictures.push({ id: e.id, at: wallTime(zone, e.at), data: e.data });
  }
  return [...cards]
    .map(([piece, { step, ...card }]) => ({ piece, recipe: step?.recipe ?? null, ...card }))
    .sort((a, b) => a.name.localeCompare(b.name));
}

/**
 * A recipe of what was really put on: only the layers done, in that order, with the minutes that were measured, the mixture and the film as
 * they were, the drying that was seen, and what each was corrected to.
 * @throws Error where the recipe of the piece is gone
 */
export function recipeOf(card: PieceCard, id: string): Recipe {
  const { recipe } = card;
  if (!recipe) throw new Error(`The recipe of ${card.name} is gone: there is nothing to make one from.`);
  const layers: Layer[] = [];
  for (const of of card.done) {
    if (layers.some((l) => l.id === of.layer.id)) continue;
    const original = recipe.layers.find((l) => l.id === of.layer.id);
    if (original) layers.push(asItWas(original, of, card.corrections.get(of.layer.id) ?? []));
  }
  const kept = new Set(layers.map((l) => l.id));
  return {
    ...recipe,
    id,
    name: withSuffix(`As on ${card.name}`, ''),
    layers: layers.map((l) => {
      const tied: Layer = { ...l, waitsFor: l.waitsFor.filter((w) => kept.has(w)) };
      if (tied.judgeFrom !== undefined && !kept.has(tied.judgeFrom)) delete tied.judgeFrom;
      if (tied.takenBack?.until != null && !kept.has(tied.takenBack.until))
        tied.takenBack = { ...tied.takenBack, until: null };
      if (tied.window?.through != null && !kept.has(tied.window.through))
        tied.window = { ...tied.window, through: null };
      return tied;
    }),
  };
}

/** A layer as it was put on, where the log says how. */
function asItWas(
  original: Layer,
  { layer, entry, count, driedAt }: CardLayer,
  corrections: readonly string[],
): Layer {
  const said = entry.about;
  const notes = [
    original.note,
    entry.mixture ? `Mixed: ${entry.mixture}.` : '',
    ...corrections.map((c) => `Corrected: ${c}.`),
  ].filter((n) => n !== '');
  const mixture = mixedOf(layer, entry);
  const was: Layer = {
    ...(mixture === null ? original : remixed(original, mixture)),
    note: notes.join(' ').slice(0, 2000),
    ...(said ? { coats: said.coats } : {}),
    ...(said?.film ? { film: said.film } : {}),
  };
  const timed = entry.isMeasured ? withEstimate(was, 'minutes', measured(was, entry.minutes, count), 1) : was;
  // A look tells only that it was dry by then: later than nominal it says that the coat needs more, sooner that it needs no more than that.
  return driedAt === null || was.dryMinutes <= 0
    ? timed
    : withEstimate(timed, 'dryMinutes', Math.max(1, Math.round(was.dryMinutes * driedAt)), 1);
}

/** Minutes a piece and a coat. */
function measured(layer: Layer, minutes: number, count: number): number {
  const each = (layer.minutes * minutes) / workMinutes(layer, count);
  return Math.max(0.1, Math.min(1440, Math.round(each * 10) / 10));
}

/** Finer no mixture is said by the bench. */
const MOST_PARTS = 12;
/** A share by so much off is the same mix. */
const SAME_SHARE = 0.03;

/** What was really mixed as the recipe would say it; null where it was as planned, or the log does not say. */
function mixedOf(layer: Layer, { used }: EntryOf<'done'>): string | null {
  const parts = (used ?? []).filter((u) => u.ml > 0);
  const all = parts.reduce((sum, p) => sum + p.ml, 0);
  if (all <= 0) return null;
  const planned = new Map(mixOf(layer).components.map((c) => [c.name, c.share]));
  const isAsPlanned =
    planned.size === parts.length &&
    parts.every((p) => Math.abs((planned.get(p.name) ?? -1) - p.ml / all) <= SAME_SHARE);
  if (isAsPlanned) return null;
  const names = parts.map((p) => p.name).join(', ');
  if (parts.length === 1) return names.slice(0, MIXTURE_LETTERS);
  // The fewest parts that come near enough.
  for (let whole = parts.length; whole <= MOST_PARTS; whole++) {
    const ratio = parts.map((p) => Math.max(1, Math.round((whole * p.ml) / all)));
    const sum = ratio.reduce((a, b) => a + b, 0);
    if (whole === MOST_PARTS || parts.every((p, k) => Math.abs(ratio[k]! / sum - p.ml / all) <= SAME_SHARE))
      return `${names} ${ratio.join(':')}`.slice(0, MIXTURE_LETTERS);
  }
  return null;
}
