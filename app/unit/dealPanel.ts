import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { withUnit, type Piece, type Unit, VARIETIES } from '#core/muster';
import {
  APART,
  couldVary,
  DEFAULT_DEAL,
  placesOf,
  swapped,
  VARIETY_WORDS,
  withOptional,
  type Dealt,
  type DealOptions,
} from '#core/variety';
import { duration } from '#core/plan';
import { MusterStore } from '../data/musterStore';
import type { VarietyDesk } from '../data/varietyDesk';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { ChoiceField } from '../ui/choiceField';
import { FIELDS } from '../ui/fields';
import { NumberField } from '../ui/numberField';
import { many } from '../ui/words';

interface Told {
  readonly piece: Piece;
  readonly traits: readonly { readonly name: string; readonly text: string; readonly bars: number }[];
}

/** A place in the rows: a piece with the parts that are joined to it. */
interface Place {
  readonly told: readonly Told[];
  /** too like the one at its right, or the one behind it */
  readonly isLikeRight: boolean;
  readonly isLikeBehind: boolean;
}

/** Bars by which a strength is told besides its word. */
const BARS: Readonly<Record<string, number>> = { off: 0, trace: 1, normal: 2, heavy: 3 };

/** Pieces in the rows in which they stand, each with what it was dealt. */
@Component({
  selector: 'pm-deal-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, Card, ChoiceField, NumberField, RouterLink],
  templateUrl: './dealPanel.html',
})
export class DealPanel {
  readonly unit = input.required<Unit>();
  readonly dealt = input.required<readonly Dealt[]>();
  readonly desk = input.required<VarietyDesk>();
  /** piece that is looked at */
  readonly picked = input<string | null>(null);
  readonly pick = output<string>();
  private readonly store = inject(MusterStore);
  protected readonly fields = FIELDS;
  protected readonly words = many;
  protected readonly varieties = VARIETIES.map((value) => ({ value, text: VARIETY_WORDS[value] }));
  protected readonly isDealing = signal(false);
  protected readonly fault = signal<string | null>(null);
  /** the piece that is to change its look with another */
  readonly swaps = signal<string | null>(null);

  /** what is wished for before the first deal */
  private readonly wished = linkedSignal<string, Partial<DealOptions>>({
    source: computed(() => this.unit().id),
    computation: () => ({}),
  });
  protected readonly options = computed(() => this.unit().deal ?? { ...DEFAULT_DEAL, ...this.wished() });
  protected readonly isDealt = computed(() => this.unit().deal !== undefined);
  protected readonly perRow = computed(() =>
    Math.max(1, Math.min(this.options().perRow, this.places().length)),
  );
  /** pieces that came after the deal */
  protected readonly late = computed(() =>
    this.isDealt() ? this.dealt().flatMap((d) => d.pieces.filter((p) => p.age === undefined)).length : 0,
  );
  protected readonly alike = computed(() => this.dealt().reduce((n, d) => n + d.alike.length, 0));
  protected readonly minutes = computed(() => this.dealt().reduce((n, d) => n + d.minutes, 0));

  protected readonly places = computed((): readonly Place[] => {
    const places = placesOf(this.unit());
    const known = new Map<string, Told>();
    const like = new Set<string>();
    for (const d of this.dealt()) {
      d.pieces.forEach((piece, k) => {
        known.set(piece.id, {
          piece,
          traits: d.traits.map((t, i) => {
            const value = t.values[d.of[k]![i]!]!;
            return {
              name: t.name,
              text: value.text,
              bars: t.kind === 'strength' ? (BARS[value.id] ?? 0) : -1,
            };
          }),
        });
      });
      for (const pair of d.alike) like.add(pair.map((k) => places.get(d.pieces[k]!.id)!).join(' '));
    }
    const rows: Told[][] = [];
    for (const piece of this.unit().pieces) {
      const told = known.get(piece.id) ?? { piece, traits: [] };
      (rows[places.get(piece.id)!] ??= []).push(told);
    }
    return rows.map((told, k) => ({
      told,
      isLikeRight: like.has(`${k} ${k + 1}`) || like.has(`${k} ${k}`),
      isLikeBehind: like.has(`${k} ${k + this.options().perRow}`),
    }));
  });

  /** Recipes in which too little differs for the neighbours that there are, and what could. */
  protected readonly poor = computed(() =>
    this.dealt()
      .filter(
        (d) =>
          (d.traits.length < APART[this.options().variety] || d.alike.length > 0) &&
          couldVary(d.recipe).length > 0,
      )
      .map((d) => ({ recipe: d.recipe, layers: couldVary(d.recipe), traits: d.traits.length })),
  );

  /** Recipes in which nothing can differ but age. */
  protected readonly bare = computed(() =>
    this.dealt().flatMap((d) =>
      d.traits.length === 1 && couldVary(d.recipe).length === 0 ? [d.recipe] : [],
    ),
  );

  protected readonly verdict = computed(() => {
    if (this.dealt().length === 0) return 'No two of its pieces follow one recipe: they differ as they are.';
    const traits = Math.min(...this.dealt().map((d) => d.apart));
    const least = this.minutes();
    const cost =
      least < -1
        ? `${duration(-least)} of hands less than by the recipe`
        : least > 1
          ? `${duration(least)} of hands more than by the recipe`
          : 'no more work than by the recipe';
    const alike =
      this.alike() === 0
        ? `No two that stand together are alike: they differ in ${many(traits, 'trait')} or more`
        : `${many(this.alike(), 'pair')} standing together ${this.alike() === 1 ? 'is' : 'are'} too alike (fewer than ${many(traits, 'trait')} apart)`;
    return `${alike}. ${cost.charAt(0).toUpperCase() + cost.slice(1)}; no load is added.`;
  });

  protected dealNow(): Promise<void> {
    return this.run(this.options(), 'pieces dealt');
  }

  protected again(): Promise<void> {
    return this.run({ ...this.options(), seed: this.options().seed + 1 }, 'dealt again');
  }

  protected more(): Promise<void> {
    return this.run({ ...this.options(), isMore: true }, 'new pieces dealt');
  }

  protected setRow(perRow: number): Promise<void> {
    return this.wish({ perRow }, 'pieces in other rows');
  }

  protected async setVariety(value: string): Promise<void> {
    const variety = VARIETIES.find((v) => v === value);
    if (variety) await this.wish({ variety }, VARIETY_WORDS[variety]);
  }

  /** What is dealt already is dealt anew; else it waits until it is. */
  private async wish(part: Partial<DealOptions>, what: string): Promise<void> {
    if (this.isDealt()) await this.run({ ...this.options(), ...part }, what);
    else this.wished.update((w) => ({ ...w, ...part }));
  }

  protected allow(recipe: string, layers: readonly string[]): void {
    this.store.change('Effects that may differ from piece to piece', (m) => withOptional(m, recipe, layers));
  }

  protected press(piece: string): void {
    const first = this.swaps();
    if (first === null || first === piece) {
      this.swaps.set(null);
      return this.pick.emit(piece);
    }
    this.swaps.set(null);
    this.store.change(`${this.unit().name}: two pieces swapped`, (m) =>
      withUnit(m, swapped(this.unit(), first, piece)),
    );
  }

  private async run(options: DealOptions, what: string): Promise<void> {
    const muster = this.store.muster();
    const unit = this.unit();
    if (!muster || this.isDealing()) return;
    this.isDealing.set(true);
    this.fault.set(null);
    try {
      const dealt = await this.desk().deal(muster, unit.id, options);
      if (!dealt) return;
      const looks = new Map(dealt.pieces.map((p) => [p.id, p]));
      this.store.change(`${unit.name}: ${what}`, (m) => ({
        ...m,
        units: m.units.map((u) =>
          u.id === unit.id
            ? { ...u, deal: dealt.deal, pieces: u.pieces.map((p) => withLook(p, looks.get(p.id))) }
            : u,
        ),
      }));
    } catch (error) {
      this.fault.set(
        `It could not be dealt: ${error instanceof Error ? error.message : String(error)}. Nothing is changed.`,
      );
    } finally {
      this.isDealing.set(false);
    }
  }
}

/** What was dealt while the piece may have been edited: its look alone. */
function withLook(piece: Piece, dealt: Piece | undefined): Piece {
  return dealt && !piece.isSet
    ? { ...piece, effects: dealt.effects, tones: dealt.tones, age: dealt.age }
    : piece;
}
