/** Each piece's own history: what went on it, in order, exactly as mixed; and a recipe made of it, to match reinforcements. */
import { methodOf } from '#core/materials';
import { wallTime, withSuffix, type Layer, type Recipe } from '#core/muster';
import type { StepRef } from '#core/plan';
import { factsOf } from './about';
import { standing, type EntryOf, type LogEntry } from './log';

export interface PieceCard {
  readonly piece: string;
  readonly name: string;
  /** null where the log alone remembers the piece */
  readonly recipe: Recipe | null;
  readonly lines: readonly string[];
  readonly pictures: readonly { readonly id: string; readonly at: string; readonly data: string }[];
  /** layers put on, in the order in which that was done, with what is known of each */
  readonly done: readonly { readonly layer: Layer; readonly entry: EntryOf<'done'> }[];
  readonly corrections: ReadonlyMap<string, readonly string[]>;
}

/** One card for every piece that has a history, by name. @param zone the bench's, for the dates */
export function pieceCards(
  log: readonly LogEntry[],
  steps: ReadonlyMap<string, StepRef>,
  zone: string,
): PieceCard[] {
  interface Draft {
    step: StepRef | undefined;
    name: string;
    lines: string[];
    pictures: { id: string; at: string; data: string }[];
    done: { layer: Layer; entry: EntryOf<'done'> }[];
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
      if (step) card.done.push({ layer: step.layer, entry: e });
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
 * A recipe of what was really put on: only the layers done, in that order, with measured minutes, the mixture in the note and what each
 * was corrected to.
 * @throws Error where the recipe of the piece is gone
 */
export function recipeOf(card: PieceCard, id: string): Recipe {
  const { recipe } = card;
  if (!recipe) throw new Error(`The recipe of ${card.name} is gone: there is nothing to make one from.`);
  const layers: Layer[] = [];
  for (const { layer, entry } of card.done) {
    if (layers.some((l) => l.id === layer.id)) continue;
    const original = recipe.layers.find((l) => l.id === layer.id);
    if (!original) continue;
    const notes = [
      original.note,
      entry.mixture ? `Mixed: ${entry.mixture}.` : '',
      ...(card.corrections.get(layer.id) ?? []).map((c) => `Corrected: ${c}.`),
    ].filter((n) => n !== '');
    layers.push({ ...original, note: notes.join(' ').slice(0, 2000) });
  }
  const kept = new Set(layers.map((l) => l.id));
  return {
    ...recipe,
    id,
    name: withSuffix(`As on ${card.name}`, ''),
    layers: layers.map((l) => {
      const tied: Layer = { ...l, waitsFor: l.waitsFor.filter((w) => kept.has(w)) };
      if (tied.judgeFrom !== undefined && !kept.has(tied.judgeFrom)) delete tied.judgeFrom;
      if (tied.window?.through != null && !kept.has(tied.window.through))
        tied.window = { ...tied.window, through: null };
      return tied;
    }),
  };
}
