import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { familyOf, methodOf } from '#core/materials';
import { instantOf, minutesUntil } from '#core/muster';
import { clockTime, dayName, duration, moment, runSheet, type RunEntry } from '#core/plan';
import { NOW } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { Planner } from '../data/planner';

@Component({
  selector: 'pm-sheet-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  templateUrl: './sheet.view.html',
})
export class SheetView {
  /** from the route: number of the session, 1 the first */
  readonly session = input<string>();
  protected readonly store = inject(MusterStore);
  protected readonly planner = inject(Planner);
  private readonly now = inject(NOW);

  private readonly cupMl = computed(() => this.store.muster()?.bench.cupMl);

  /** The session asked for, or the one under way, or the next. */
  protected readonly index = computed(() => {
    const plan = this.planner.plan();
    if (!plan) return 0;
    const asked = Number(this.session()) - 1;
    if (Number.isInteger(asked) && asked >= 0 && asked < plan.sessions.length) return asked;
    const minute = minutesUntil(plan.origin, instantOf(this.now()));
    return Math.max(
      0,
      plan.sessions.findIndex((s) => s.end > minute),
    );
  });
  protected readonly sheet = computed(() => {
    const plan = this.planner.plan();
    return plan && plan.sessions.length > 0 ? runSheet(plan, this.index(), this.cupMl()) : null;
  });

  protected readonly dayName = dayName;
  protected readonly clockTime = clockTime;
  protected readonly duration = duration;
  protected readonly moment = moment;
  protected readonly percent = (share: number): number => Math.round(share * 100);

  protected how(entry: RunEntry): string {
    const { layer } = entry;
    return [
      methodOf(layer.method).name,
      familyOf(layer.family).name,
      layer.mixture,
      layer.coats > 1 ? `${layer.coats} coats` : '1 coat',
    ]
      .filter((t) => t !== '')
      .join(' · ');
  }

  protected pieces(entry: RunEntry): { step: string; text: string }[] {
    return entry.pieces.map((p) => ({ step: p.step, text: p.count > 1 ? `${p.name} (${p.count})` : p.name }));
  }

  protected units(entry: RunEntry): string {
    return [...new Set(entry.pieces.map((p) => p.unit))].join(', ');
  }

  protected print(): void {
    window.print();
  }
}
