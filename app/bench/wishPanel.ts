import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { withBench, type Wish } from '#core/muster';
import { MusterStore } from '../data/musterStore';
import { Card } from '../ui/card';

const CHOICES: readonly { readonly wish: Wish; readonly name: string; readonly text: string }[] = [
  {
    wish: 'early',
    name: 'Finish early',
    text: 'Units are done as soon as they can be; evenings change from task to task more often.',
  },
  {
    wish: 'balanced',
    name: 'Balanced',
    text: 'Up to three sessions to spare before each date, then few and long runs.',
  },
  {
    wish: 'quiet',
    name: 'Long quiet runs',
    text: 'As few changes of task and tool as can be found; the dates are kept, but nothing is held in reserve before them.',
  },
];

/** What a plan wishes for once every date is kept, in three words. */
@Component({
  selector: 'pm-wish-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Card],
  template: `
    <section pmCard aria-labelledby="wish">
      <h2 id="wish" class="mb-1 text-[1.25rem]">What the evenings should be like</h2>
      <p class="mb-3 text-[0.9rem] text-mute">Every date is kept first. Then:</p>
      <div class="flex flex-col gap-2" role="radiogroup" aria-labelledby="wish">
        @for (c of choices; track c.wish) {
          <label
            class="flex cursor-pointer items-start gap-3 rounded-md border p-3"
            [class]="wish() === c.wish ? 'border-lamp bg-raised' : 'border-line'"
          >
            <input
              type="radio"
              name="wish"
              class="mt-1 h-5 w-5 accent-lamp"
              [value]="c.wish"
              [checked]="wish() === c.wish"
              (change)="choose(c.wish)"
            />
            <span
              ><strong>{{ c.name }}</strong
              ><span class="block text-[0.95rem] text-mute">{{ c.text }}</span></span
            >
          </label>
        }
      </div>
    </section>
  `,
})
export class WishPanel {
  private readonly store = inject(MusterStore);
  protected readonly choices = CHOICES;
  protected readonly wish = computed(() => this.store.muster()?.bench.wish ?? 'balanced');

  protected choose(wish: Wish): void {
    this.store.change('Bench: what the evenings should be like', (m) => withBench(m, { ...m.bench, wish }));
  }
}
