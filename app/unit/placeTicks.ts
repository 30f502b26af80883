import { ChangeDetectionStrategy, Component, computed, inject, input, model } from '@angular/core';
import type { Piece, Unit } from '#core/muster';
import { markOn } from '#core/session';
import { areaWords, type Placed } from '#core/variety';
import { Button } from '../ui/button';
import { CheckField } from '../ui/checkField';
import { PlacedLog } from './placedLog';

/** The places of one effect on one piece, ticked as they get it; and what was drawn besides, to be taken off. */
@Component({
  selector: 'pm-place-ticks',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, CheckField],
  template: `
    <ul class="flex flex-wrap gap-x-5" [attr.aria-label]="placed().name + ' on ' + piece().name">
      @for (a of areas(); track a.text) {
        <li>
          <pm-check
            [label]="a.text"
            [value]="a.isDone"
            (valueChange)="log.turn(unit(), piece(), placed().layer, a.area)"
          />
        </li>
      }
      @for (m of drawn(); track m.mark.id) {
        <li class="flex items-center gap-2">
          <span>{{ m.text }}</span>
          <button pmButton="small" [attr.aria-label]="'Take off ' + m.text" (click)="log.takeOff(m.mark)">
            Take off
          </button>
        </li>
      }
    </ul>
    <p class="flex flex-wrap items-center gap-x-3 text-[0.9rem] text-mute">
      <span role="status">{{ count() }}</span>
      <button pmButton="small" [attr.aria-pressed]="draws()" (click)="draws.set(!draws())">
        {{ draws() ? 'Done drawing' : 'Draw where it went' }}
      </button>
      @if (draws()) {
        <span>Tap a face, or draw over it.</span>
      }
    </p>
    @if (log.fault(); as text) {
      <p class="text-shut" role="alert">{{ text }}</p>
    }
  `,
})
export class PlaceTicks {
  readonly unit = input.required<Unit>();
  readonly piece = input.required<Piece>();
  readonly placed = input.required<Placed>();
  readonly draws = model(false);
  protected readonly log = inject(PlacedLog);

  private readonly done = computed(() => this.log.marksOn(this.piece().id));
  protected readonly areas = computed(() =>
    this.placed().areas.map((area) => ({
      area,
      text: areaWords(area),
      isDone: markOn(this.done(), this.placed().layer.id, area) !== null,
    })),
  );
  /** what is on it and not on its brief */
  protected readonly drawn = computed(() =>
    this.done()
      .filter(
        (m) =>
          m.layer === this.placed().layer.id &&
          !this.placed().areas.some((a) => markOn([m], this.placed().layer.id, a)),
      )
      .map((mark) => ({ mark, text: `${mark.face}: ${mark.where}` })),
  );
  protected readonly count = computed(() => {
    const ticked = this.areas().filter((a) => a.isDone).length;
    const more = this.drawn().length;
    return `${ticked} of ${this.areas().length} places done${more > 0 ? `, ${more} besides` : ''}.`;
  });
}
