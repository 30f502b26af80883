import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Layer, Product, Recipe } from '#core/muster';
import { duration } from '#core/plan';
import type { LayerChange } from '#core/recipe';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { many } from '../ui/words';
import { changedLook } from './changedLook';
import { LookBlock } from './lookBlock';

const SIGN = { added: '+', gone: '−', moved: '↕', changed: '~' } as const;

/** What a choice would make of the layers, and the choice itself. */
@Component({
  selector: 'pm-layer-diff',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, Card, LookBlock],
  template: `
    <section pmCard="lamp" aria-label="What it would change">
      <p class="mb-2" role="status">
        @if (changes().length === 0) {
          The layers stay as they are.
        } @else {
          <strong>{{ words(changes().length, 'layer') }}</strong>: {{ signed(minutes()) }} of hands,
          {{ signed(dry()) }} of drying a piece.
        }
      </p>
      @if (look(); as l) {
        <div class="mb-2 grid grid-cols-2 gap-2 text-center text-[0.85rem]">
          @if (l.before; as sight) {
            <span><pm-look-block [sight]="sight" [label]="l.zone + ' as it is'" />{{ l.zone }} as it is</span>
          } @else {
            <span></span>
          }
          @if (l.after; as sight) {
            <span><pm-look-block [sight]="sight" [label]="l.zone + ' as it would be'" />as it would be</span>
          }
        </div>
      }
      <ul
        tabindex="0"
        class="mb-2 max-h-60 overflow-auto text-[0.95rem]"
        aria-label="Layers that change, the top one first"
      >
        @for (c of changes(); track $index) {
          <li class="flex gap-2 py-0.5">
            <strong
              class="w-4 shrink-0 text-center"
              [class]="c.is === 'gone' ? 'text-shut' : 'text-open'"
              aria-hidden="true"
              >{{ sign[c.is] }}</strong
            >
            <span class="min-w-0 grow"
              ><span class="sr-only">{{ c.is }}: </span>{{ c.layer.name }}
              @if (c.minutes !== 0) {
                <span class="text-mute">{{ signed(c.minutes) }}</span>
              }
            </span>
          </li>
        }
      </ul>
      @if (kept().length > 0) {
        <p class="mb-2 text-[0.9rem] text-mute">Kept as your hand made them: {{ names() }}.</p>
      }
      <div class="flex flex-wrap gap-2">
        <button pmButton="lamp" (click)="accepted.emit()">{{ word() }}</button>
        <button pmButton (click)="left.emit()">Leave it as it is</button>
      </div>
    </section>
  `,
})
export class LayerDiff {
  readonly changes = input.required<readonly LayerChange[]>();
  readonly kept = input<readonly Layer[]>([]);
  readonly word = input.required<string>();
  /** the recipe as it is, and as it would be */
  readonly from = input.required<Recipe>();
  readonly to = input.required<Recipe>();
  readonly products = input<readonly Product[]>([]);
  readonly accepted = output();
  readonly left = output();

  protected readonly look = computed(() => changedLook(this.from(), this.to(), this.products()));
  protected readonly sign = SIGN;
  protected readonly words = many;
  protected readonly minutes = computed(() => this.changes().reduce((sum, c) => sum + c.minutes, 0));
  protected readonly dry = computed(() => this.changes().reduce((sum, c) => sum + c.dryMinutes, 0));
  protected readonly names = computed(() =>
    this.kept()
      .map((l) => l.name)
      .join(', '),
  );

  protected signed(minutes: number): string {
    const rounded = Math.round(minutes);
    return rounded === 0 ? 'no more' : `${rounded > 0 ? '+' : '−'}${duration(Math.abs(rounded))}`;
  }
}
