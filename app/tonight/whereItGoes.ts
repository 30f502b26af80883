import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  input,
  linkedSignal,
} from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { from } from 'rxjs';
import type { PlanStep } from '#core/plan';
import { placedWords } from '#core/variety';
import { MusterStore } from '../data/musterStore';
import { OPEN_VARIETY } from '../data/varietyDesk';
import { FacesDrawing } from '../unit/facesDrawing';
import { Button } from '../ui/button';

/** Where the effect in hand goes on each piece of the run, drawn: the first that is not ticked, and any other that is pressed. */
@Component({
  selector: 'pm-where-it-goes',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, FacesDrawing],
  template: `
    @if (placed(); as p) {
      <h2 class="text-[1rem] text-lamp">Where it goes on {{ p.brief.piece.name }}</h2>
      <pm-faces class="block max-w-96" [brief]="p.brief" [only]="p.layer" [marked]="true" />
      <p class="mt-1 text-[1.05rem]">{{ p.words }}</p>
      @if (steps().length > 1) {
        <div class="mt-1 flex flex-wrap gap-2">
          <button pmButton="small" (click)="go(-1)" aria-label="Where it goes on the piece before">←</button>
          <button pmButton="small" (click)="go(1)" aria-label="Where it goes on the next piece">
            The next piece →
          </button>
        </div>
      }
    }
  `,
})
export class WhereItGoes {
  /** of the run in hand */
  readonly steps = input.required<readonly PlanStep[]>();
  readonly ticked = input.required<ReadonlySet<string>>();
  private readonly store = inject(MusterStore);
  private readonly desk = inject(OPEN_VARIETY)();

  private readonly at = linkedSignal({
    source: () => ({ steps: this.steps(), ticked: this.ticked() }),
    computation: ({ steps, ticked }) =>
      Math.max(
        0,
        steps.findIndex((s) => !ticked.has(s.id)),
      ),
  });
  private readonly step = computed(() => this.steps()[this.at()]);
  private readonly asked = computed(() => {
    const muster = this.store.muster();
    const unit = muster?.units.find((u) => u.id === this.step()?.unit.id);
    return muster && unit ? { muster, unit } : undefined;
  });
  private readonly told = rxResource({
    params: () => this.asked(),
    stream: ({ params }) => from(this.desk.brief(params.muster, params.unit)),
  });
  protected readonly placed = computed(() => {
    const step = this.step();
    const briefs = this.told.hasValue() ? this.told.value() : [];
    const brief = briefs.find((b) => b.piece.id === step?.piece.id);
    const placed = brief?.placed.find((p) => p.layer.id === step?.layer.id);
    return brief && placed ? { brief, layer: placed.layer.id, words: placedWords(placed) } : null;
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => this.desk.close());
  }

  protected go(by: number): void {
    const n = this.steps().length;
    this.at.update((k) => (k + by + n) % n);
  }
}
