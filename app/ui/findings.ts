import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Finding } from '#core/recipe';
import { Button } from './button';
import { viewOf } from './viewOf';

const ORDER: readonly Finding['severity'][] = ['error', 'warning', 'advice'];

/** What is wrong, where, and what to do, each with a way to its place. */
@Component({
  selector: 'pm-findings',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, RouterLink],
  template: `
    <ul class="flex flex-col gap-4">
      @for (f of list(); track $index) {
        <li class="border-l-4 py-0.5 pl-3" [class]="f.severity === 'error' ? 'border-shut' : 'border-lamp'">
          <strong
            class="text-[0.9rem] uppercase"
            [class]="f.severity === 'error' ? 'text-shut' : 'text-lamp'"
            >{{ f.severity === 'error' ? 'Breaks' : f.severity === 'warning' ? 'Watch' : 'Better' }}</strong
          >
          <div class="font-semibold">{{ f.where }}</div>
          <div>{{ f.text }}</div>
          <div class="text-mute">{{ f.cure }}</div>
          @if (f.fix; as fix) {
            <button pmButton="small lamp" class="mt-2 mr-2" (click)="cured.emit(f)">
              {{ fix.label }}
            </button>
          }
          @if (linked()) {
            <a
              pmButton="small"
              class="mt-2"
              [routerLink]="f.place.recipe ? ['/recipes', f.place.recipe] : ['/', viewOf(f)]"
              [queryParams]="{ unit: f.place.unit, layer: f.place.layer }"
              >Go there</a
            >
          }
        </li>
      }
    </ul>
  `,
})
export class Findings {
  protected readonly viewOf = viewOf;
  readonly findings = input.required<readonly Finding[]>();
  readonly linked = input(true);
  /** the cure of one is to be taken */
  readonly cured = output<Finding>();
  protected readonly list = computed(() =>
    [...this.findings()].sort((a, b) => ORDER.indexOf(a.severity) - ORDER.indexOf(b.severity)),
  );
}
