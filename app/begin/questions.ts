import { ChangeDetectionStrategy, Component, computed, effect, inject, output, signal } from '@angular/core';
import { Router } from '@angular/router';
import { type Answers, begun, readLines, TABLE_TIME, type Beginning, type UnitDraft } from '#core/entry';
import { LIBRARY } from '#core/library';
import {
  addDays,
  instantOf,
  sessionsOf,
  wallTime,
  weekdayOf,
  type Recipe,
  EVENINGS,
  ROOMS,
  type Evening,
  type RoomId,
} from '#core/muster';
import { duration } from '#core/plan';
import { recipeByBrush, workMinutes } from '#core/recipe';
import { NEW_ID, NOW, ZONE } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { forgetPutBy } from './isPutBy';
import { keep, putBy } from './putBy';
import { CheckField } from '../ui/checkField';
import { TextField } from '../ui/textField';
import { many, weekdayName } from '../ui/words';
import { OpenChoiceField } from '../ui/openChoice';
import { QuickLine } from '../ui/quickLine';
import { RecipeCard } from '../ui/recipeCard';
import { Button } from '../ui/button';
import { Card } from '../ui/card';

/** Weeks until the date that is offered. */
const WEEKS = 5;
const SATURDAY = 6;
/** of a list pasted into the field */
const MOST_LETTERS = 20_000;
const STEPS = ['The bench', 'The shelf', 'By when'] as const;

/** Three questions, each with an answer already there, and the plan. */
@Component({
  selector: 'pm-questions',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Card, Button, CheckField, OpenChoiceField, QuickLine, RecipeCard, TextField],
  templateUrl: './questions.html',
})
export class Questions {
  protected readonly store = inject(MusterStore);
  private readonly router = inject(Router);
  private readonly newId = inject(NEW_ID);
  private readonly zone = inject(ZONE);
  private readonly now = inject(NOW);

  /** back to where own or demo is chosen */
  readonly left = output();
  protected readonly step = signal(0);
  protected readonly fault = signal<string | null>(null);
  protected readonly steps = STEPS;
  protected readonly mostLetters = MOST_LETTERS;
  protected readonly rooms = ROOMS.map((r) => ({
    value: r.id,
    text: `${r.name} · ${r.day[0]} °C, ${r.day[1]} %`,
  }));
  protected readonly weekdayName = weekdayName;
  protected readonly duration = duration;

  protected readonly evenings = signal<readonly (Evening & { readonly isOn: boolean })[]>(
    [1, 2, 3, 4, 5, 6, 7].map((weekday) => {
      const usual = EVENINGS.find((e) => e.weekday === weekday);
      return { weekday, from: usual?.from ?? '19:00', to: usual?.to ?? '21:30', isOn: usual !== undefined };
    }),
  );
  protected readonly hasAirbrush = signal(true);
  protected readonly room = signal<RoomId>('heated');
  protected readonly units = signal<readonly UnitDraft[]>([]);
  protected readonly unclear = signal<string | null>(null);
  /** the unit whose recipe is being chosen */
  protected readonly choosing = signal<number | null>(null);
  private readonly today = wallTime(this.zone, instantOf(this.now())).slice(0, 10);
  protected readonly table = signal(`${saturdayFrom(addDays(this.today, 7 * WEEKS))}T${TABLE_TIME}`);

  protected readonly library = computed(() =>
    this.hasAirbrush() ? LIBRARY : LIBRARY.map((r) => recipeByBrush(r)),
  );
  protected readonly pieces = computed(() => this.units().reduce((n, u) => n + u.pieces.length, 0));
  /** hours of hands that it takes, against those that the bench has until the last date */
  protected readonly load = computed(() => {
    const recipes = new Map(this.library().map((r) => [r.id, r]));
    const needed = this.units()
      .flatMap((u) => u.pieces)
      .reduce((sum, p) => sum + minutesOf(recipes.get(p.recipe ?? ''), p.figures), 0);
    const muster = begun({ ...this.answers(), units: [] }, `${this.today}T00:00`, this.zone, [], () => '');
    const last = [this.table(), ...this.units().flatMap((u) => u.table ?? [])].reduce((a, b) =>
      a > b ? a : b,
    );
    const days = Math.max(
      1,
      Math.round((Date.parse(`${last}Z`) - Date.parse(`${this.today}T00:00Z`)) / 86_400_000),
    );
    const has = sessionsOf(muster, days).reduce((sum, s) => sum + s.end - s.start, 0);
    return { needed, has };
  });

  constructor() {
    const kept = putBy();
    if (kept) {
      this.evenings.set(kept.evenings);
      this.hasAirbrush.set(kept.hasAirbrush);
      this.room.set(kept.room);
      this.table.set(kept.table);
      this.units.set(kept.units as UnitDraft[]);
      this.step.set(kept.step ?? 0);
    }
    // A reload, or a closed lid, in the middle of it loses nothing.
    effect(() => {
      const answers: Answers = {
        evenings: [...this.evenings()],
        hasAirbrush: this.hasAirbrush(),
        room: this.room(),
        table: this.table(),
        units: this.units().map((u) => ({ ...u, pieces: [...u.pieces] })),
        step: this.step(),
      };
      keep(answers);
    });
  }

  protected back(): void {
    if (this.step() > 0) return this.step.update((k) => k - 1);
    this.left.emit();
  }

  protected setEvening(weekday: number, part: Partial<Evening & { isOn: boolean }>): void {
    this.evenings.update((list) => list.map((e) => (e.weekday === weekday ? { ...e, ...part } : e)));
  }

  protected setRoom(id: string): void {
    const room = ROOMS.find((r) => r.id === id);
    if (room) this.room.set(room.id);
  }

  /** One line is one unit; a whole list may be pasted. */
  protected addLine({ text, clear }: { readonly text: string; readonly clear: () => void }): void {
    const read = readLines(text, { recipes: this.library(), today: this.today });
    const faulty = read.find((u) => u.fault !== null || u.missing.includes('name'));
    if (read.length === 0 || faulty) {
      this.unclear.set(faulty?.fault ?? 'Say what it is, such as “5 barges”.');
      return;
    }
    const words = read.flatMap((u) => u.unclear);
    this.unclear.set(words.length === 0 ? null : `Not understood and left out: ${words.join(', ')}.`);
    const before = this.units().length;
    this.units.update((list) => [...list, ...read.map(({ draft }) => draft)]);
    clear();
    const open = this.units().findIndex((u, k) => k >= before && u.pieces.some((p) => p.recipe === null));
    this.choosing.set(open >= 0 ? open : null);
  }

  protected recipeOf(unit: UnitDraft): Recipe | null {
    return this.library().find((r) => r.id === unit.pieces[0]?.recipe) ?? null;
  }

  protected choose(index: number, recipe: string): void {
    this.setUnit(index, (u) => ({ ...u, pieces: u.pieces.map((p) => ({ ...p, recipe })) }));
    const next = this.units().findIndex((u) => u.pieces.some((p) => p.recipe === null));
    this.choosing.set(next >= 0 ? next : null);
  }

  protected setTable(index: number, table: string): void {
    this.setUnit(index, (u) => ({ ...u, table: table.slice(0, 16) }));
  }

  protected remove(index: number): void {
    this.units.update((list) => list.filter((_, k) => k !== index));
    this.choosing.set(null);
  }

  protected about(unit: UnitDraft): string {
    const [first] = unit.pieces;
    const names = unit.pieces.map((p) => p.name);
    const list = names.length > 3 ? `${names.slice(0, 2).join(', ')} … ${names.at(-1)}` : names.join(', ');
    const figures = first && first.figures > 1 ? `, ${many(first.figures, 'figure')} each` : '';
    return `${many(names.length, 'piece')}: ${list}${figures}`;
  }

  protected async finish(): Promise<void> {
    this.fault.set(null);
    const now = `${this.today}T${wallTime(this.zone, instantOf(this.now())).slice(11, 16)}`;
    try {
      await this.store.add(begun(this.answers(), now, this.zone, this.library(), this.newId), 'Begun');
      forgetPutBy();
      await this.router.navigate([this.units().length > 0 ? '/plan' : '/muster']);
    } catch (error) {
      this.fault.set(error instanceof Error ? error.message : String(error));
    }
  }

  private answers(): Beginning {
    return {
      name: 'My muster',
      evenings: this.evenings()
        .filter((e) => e.isOn)
        .map(({ weekday, from, to }) => ({ weekday, from, to })),
      hasAirbrush: this.hasAirbrush(),
      room: this.room(),
      units: this.units(),
      table: this.table(),
    };
  }

  private setUnit(index: number, edit: (unit: UnitDraft) => UnitDraft): void {
    this.units.update((list) => list.map((u, k) => (k === index ? edit(u) : u)));
  }
}

function saturdayFrom(date: string): string {
  return addDays(date, (SATURDAY - weekdayOf(date) + 7) % 7);
}

function minutesOf(recipe: Recipe | undefined, figures: number): number {
  return recipe?.layers.reduce((sum, l) => sum + workMinutes(l, figures), 0) ?? 0;
}
