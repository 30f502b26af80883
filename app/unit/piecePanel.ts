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
import { FEATURES, withPieces, withUnit, type Feature, type Piece, type Unit } from '#core/muster';
import {
  FEATURE_WORDS,
  featuresOf,
  placedWords,
  withTrait,
  type Brief,
  type Dealt,
  type Placed,
  type Trait,
} from '#core/variety';
import type { MarkPlace } from '#core/session';
import { MusterStore } from '../data/musterStore';
import { Button } from '../ui/button';
import { CheckField } from '../ui/checkField';
import { ChoiceField } from '../ui/choiceField';
import { FacesDrawing } from './facesDrawing';
import { PlacedLog } from './placedLog';
import { PlaceTicks } from './placeTicks';
import { ReferenceStrip } from './referenceStrip';

/** One piece: what it was dealt, to be set by hand; what it has that life marks; and where its marks go. */
@Component({
  selector: 'pm-piece-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, CheckField, ChoiceField, FacesDrawing, PlaceTicks, ReferenceStrip],
  providers: [PlacedLog],
  templateUrl: './piecePanel.html',
})
export class PiecePanel {
  readonly unit = input.required<Unit>();
  readonly piece = input.required<Piece>();
  readonly dealt = input.required<readonly Dealt[]>();
  readonly briefs = input.required<readonly Brief[]>();
  readonly swap = output();
  private readonly store = inject(MusterStore);
  protected readonly only = signal<string | null>(null);
  /** drawing over the faces where the effect that is looked at went */
  protected readonly draws = linkedSignal({
    source: () => `${this.piece().id} ${this.only() ?? ''}`,
    computation: () => false,
  });
  private readonly placedLog = inject(PlacedLog);
  protected readonly done = computed(() => this.placedLog.marksOn(this.piece().id));
  protected readonly recipes = computed(() => {
    const muster = this.store.muster();
    return muster?.recipes.filter((r) => r.id === this.piece().recipe) ?? [];
  });
  protected readonly features = FEATURES.map((id) => ({ id, text: FEATURE_WORDS[id] }));
  protected readonly placedWords = placedWords;

  protected readonly traits = computed(() => {
    const deal = this.dealt().find((d) => d.pieces.some((p) => p.id === this.piece().id));
    const at = deal?.pieces.findIndex((p) => p.id === this.piece().id) ?? -1;
    return (deal?.traits ?? []).map((trait, t) => ({
      trait,
      value: trait.values[deal!.of[at]![t]!]!.id,
      choices: trait.values.map((v) => ({ value: v.id, text: v.text })),
    }));
  });
  protected readonly brief = computed(
    () => this.briefs().find((b) => b.piece.id === this.piece().id) ?? null,
  );
  protected readonly sums = computed(() => {
    const brief = this.brief();
    if (!brief) return '';
    return `Left and right differ by ${Math.round(100 * brief.asymmetry)} % of what is on them; ${Math.round(100 * brief.low)} % of what is on the sides lies in their lower half.`;
  });

  protected draw(place: MarkPlace): void {
    const layer = this.brief()?.placed.find((p) => p.layer.id === this.only())?.layer;
    if (layer) void this.placedLog.draw(this.unit(), this.piece(), layer, place);
  }

  protected has(feature: Feature): boolean {
    return featuresOf(this.piece()).includes(feature);
  }

  protected strength(placed: Placed): string {
    return placed.strength === 'normal'
      ? ''
      : `, ${placed.strength === 'trace' ? 'a trace' : placed.strength}`;
  }

  protected setTrait(trait: Trait, value: string): void {
    this.change(`${trait.name} by hand`, withTrait(this.unit(), this.piece().id, trait, value));
  }

  protected setFeature(feature: Feature, isOn: boolean): void {
    const had = featuresOf(this.piece());
    const features = FEATURES.filter((f) => (f === feature ? isOn : had.includes(f)));
    this.set('what it has', { features });
  }

  protected set(what: string, part: Partial<Piece>): void {
    this.change(what, withPieces(this.unit(), new Set([this.piece().id]), part));
  }

  private change(what: string, unit: Unit): void {
    this.store.change(`${this.piece().name}: ${what}`, (m) => withUnit(m, unit));
  }
}
