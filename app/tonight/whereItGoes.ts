import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { from } from 'rxjs';
import type { PlanStep } from '#core/plan';
import type { MarkPlace } from '#core/session';
import { MusterStore } from '../data/musterStore';
import { OPEN_VARIETY } from '../data/varietyDesk';
import { FacesDrawing } from '../unit/facesDrawing';
import { PlacedLog } from '../unit/placedLog';
import { PlaceTicks } from '../unit/placeTicks';
import { Button } from '../ui/button';

/** Where the effect in hand goes on each piece of the run, drawn: the first that is not ticked, and any other that is pressed. */
@Component({
  selector: 'pm-where-it-goes',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, FacesDrawing, PlaceTicks],
  providers: [PlacedLog],
  template: `
    @if (placed(); as p) {
      <h2 class="text-[1rem] text-lamp">Where it goes on {{ p.brief.piece.name }}</h2>
      <pm-faces
        class="block max-w-96"
        [brief]="p.brief"
        [only]="p.placed.layer.id"
        [marked]="!draws()"
        [done]="done()"
        [draws]="draws()"
        (drawn)="draw($event)"
      />
      <pm-place-ticks
        class="mt-1 block text-[1.05rem]"
        [unit]="p.unit"
        [piece]="p.brief.piece"
        [placed]="p.placed"
        [(draws)]="draws"
      />
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
  private readonly log = inject(PlacedLog);
  protected readonly draws = signal(false);

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
    const unit = this.asked()?.unit;
    return brief && placed && unit ? { brief, placed, unit } : null;
  });
  protected readonly done = computed(() => this.log.marksOn(this.placed()?.brief.piece.id ?? ''));

  constructor() {
    inject(DestroyRef).onDestroy(() => this.desk.close());
  }

  protected draw(place: MarkPlace): void {
    const p = this.placed();
    if (p) void this.log.draw(p.unit, p.brief.piece, p.placed.layer, place);
  }

  protected go(by: number): void {
    const n = this.steps().length;
    this.at.update((k) => (k + by + n) % n);
  }
}
