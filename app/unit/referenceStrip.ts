import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import type { Recipe } from '#core/muster';
import { referencesOf, referenceWords } from '#core/session';
import { Logbook } from '../data/logbook';

/** What recipes go by, beside the work: each with its year, its picture large at a press. Nothing where there is none. */
@Component({
  selector: 'pm-references',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (references().length > 0) {
      <h3 class="mb-1 text-[1.1rem]">It goes by</h3>
      <ul class="flex flex-wrap gap-3" aria-label="References">
        @for (r of references(); track r.reference.id) {
          <li [class]="large() === r.reference.id ? 'basis-full' : 'max-w-44'">
            @if (r.picture; as data) {
              <button
                type="button"
                class="block w-full"
                [attr.aria-pressed]="large() === r.reference.id"
                [attr.aria-label]="r.reference.name + (large() === r.reference.id ? ', smaller' : ', larger')"
                (click)="large.set(large() === r.reference.id ? null : r.reference.id)"
              >
                <img class="w-full rounded border border-line" [src]="data" [alt]="r.reference.name" />
              </button>
            }
            <span class="text-[0.9rem]">{{ words(r.reference) }}</span>
          </li>
        }
      </ul>
    }
  `,
})
export class ReferenceStrip {
  readonly recipes = input.required<readonly Recipe[]>();
  private readonly logbook = inject(Logbook);
  protected readonly words = referenceWords;
  /** the one that is shown large, by its id */
  protected readonly large = signal<string | null>(null);
  protected readonly references = computed(() => referencesOf(this.recipes(), this.logbook.entries()));
}
