import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { familyOf, methodOf, sprayWords } from '#core/materials';
import { instantOf, minutesUntil } from '#core/muster';
import type { Finding } from '#core/recipe';
import { clockTime, dayName, duration, moment, runSheet, thereWords, type RunEntry } from '#core/plan';
import { Concerns } from '../data/concerns';
import { NOW } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { Planner } from '../data/planner';
import { Button } from '../ui/button';
import { many, tenths } from '../ui/words';

@Component({
  selector: 'pm-sheet-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, RouterLink],
  templateUrl: './sheet.view.html',
})
export class SheetView {
  /** from the route: number of the session, 1 the first */
  readonly session = input<string>();
  protected readonly store = inject(MusterStore);
  protected readonly planner = inject(Planner);
  private readonly concerns = inject(Concerns);
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
  protected readonly tenths = tenths;
  protected readonly sprayWords = sprayWords;
  protected readonly thereWords = thereWords;
  protected readonly moment = moment;
  protected readonly percent = (share: number): number => Math.round(share * 100);

  protected how(entry: RunEntry): string {
    const { layer, coats, tool } = entry;
    return [
      tool ?? methodOf(layer.method).name,
      familyOf(layer.family).name,
      layer.mixture,
      coats[0] === coats[1]
        ? coats[1] > 1
          ? `${coats[1]} coats`
          : '1 coat'
        : `${coats[0]} to ${coats[1]} coats`,
    ]
      .filter((t) => t !== '')
      .join(' · ');
  }

  /** What the checks say of its layers, each once. */
  protected findingsOf(entry: RunEntry): readonly Finding[] {
    const steps = this.planner.plan()?.steps;
    const found = entry.pieces.flatMap(({ step }) => {
      const s = steps?.get(step);
      return s ? this.concerns.ofLayer(s.recipe.id, s.layer.id) : [];
    });
    return [...new Set(found)];
  }

  /** As many pieces as there are to tick off, and how many that is with each on a tray. */
  protected count(entry: RunEntry): string {
    const each = entry.pieces.reduce((sum, p) => sum + p.count, 0);
    const ticks = many(entry.pieces.length, 'piece');
    return each > entry.pieces.length ? `${ticks}, ${each} in all` : ticks;
  }

  /** The pieces of a run by unit, in the order in which they come. */
  protected units(entry: RunEntry): { name: string; pieces: { step: string; text: string }[] }[] {
    const units = new Map<string, { step: string; text: string }[]>();
    for (const p of entry.pieces) {
      const text = `${p.name}${p.count > 1 ? ` (${p.count})` : ''}${p.layer === null ? '' : `: ${p.layer}`}`;
      units.set(p.unit, [...(units.get(p.unit) ?? []), { step: p.step, text }]);
    }
    return [...units].map(([name, pieces]) => ({ name, pieces }));
  }

  protected lastDry(entry: RunEntry): number {
    return Math.max(...entry.pieces.map((p) => p.dryAt));
  }

  protected print(): void {
    window.print();
  }
}
