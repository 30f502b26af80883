import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { Finding } from '#core/recipe';
import { Concerns } from '../data/concerns';
import { MusterStore } from '../data/musterStore';
import { Findings } from '../ui/findings';
import { many } from '../ui/words';

const GROUPS: readonly { readonly severity: Finding['severity']; readonly title: string }[] = [
  { severity: 'error', title: 'Breaks a rule, or keeps the plan from being made' },
  { severity: 'warning', title: 'To watch' },
  { severity: 'advice', title: 'Would be better' },
];

/** All that the checks have found, wherever it is, with its cures. */
@Component({
  selector: 'pm-findings-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Findings],
  template: `
    <div class="mx-auto max-w-[56rem] p-5">
      <h1 class="mb-1 text-[1.7rem]">What to look at</h1>
      <p class="mb-5 text-mute" role="status">{{ summary() }}</p>
      @for (group of groups(); track group.severity) {
        <section class="mb-7" [attr.aria-labelledby]="'group-' + group.severity">
          <h2 [id]="'group-' + group.severity" class="mb-3 text-[1.2rem]">
            {{ group.title }} <span class="text-mute">({{ group.findings.length }})</span>
          </h2>
          <pm-findings [findings]="group.findings" (cured)="concerns.cure($event)" />
        </section>
      }
    </div>
  `,
})
export class FindingsView {
  private readonly store = inject(MusterStore);
  protected readonly concerns = inject(Concerns);
  protected readonly groups = computed(() =>
    GROUPS.map((g) => ({
      ...g,
      findings: this.store.findings().filter((f) => f.severity === g.severity),
    })).filter((g) => g.findings.length > 0),
  );
  protected readonly summary = computed(() => {
    const n = this.store.findings().length;
    return n === 0
      ? 'Nothing: recipes, bench, stores and dates are in order.'
      : `${many(n, 'thing')} found in recipes, bench, stores and dates.`;
  });
}
