import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { withBench, type Wish } from '#core/muster';
import { MusterStore } from '../data/musterStore';
import { Card } from '../ui/card';
import { ChoiceField, type Choice } from '../ui/choiceField';

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

const USUAL = 'usual';
const LOSSES: readonly Choice[] = [
  { value: USUAL, text: 'about one in six, as is usual' },
  { value: '0', text: 'none' },
  { value: '0.05', text: 'one in twenty' },
  { value: '0.1', text: 'one in ten' },
  { value: '0.25', text: 'one in four' },
  { value: '0.33', text: 'one in three' },
  { value: '0.5', text: 'every other' },
];

/** What a plan wishes for once every date is kept, in three words. */
@Component({
  selector: 'pm-wish-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Card, ChoiceField],
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
      <pm-choice
        class="mt-3 block"
        label="Of the evenings in the plan, lost to other things"
        [value]="lost()"
        [choices]="losses"
        (valueChange)="lose($event)"
      />
      <p class="mt-1 text-[0.9rem] text-mute">
        “Will I make it?” in the plan reckons with it; the log corrects it.
      </p>
    </section>
  `,
})
export class WishPanel {
  private readonly store = inject(MusterStore);
  protected readonly choices = CHOICES;
  protected readonly wish = computed(() => this.store.muster()?.bench.wish ?? 'balanced');

  protected readonly losses = LOSSES;
  protected readonly lost = computed(() => {
    const share = this.store.muster()?.bench.lostEvenings;
    return share === undefined ? USUAL : String(share);
  });

  protected lose(value: string): void {
    this.store.change('Bench: evenings that are lost', (m) => {
      const { lostEvenings, ...bench } = m.bench;
      void lostEvenings;
      return withBench(m, value === USUAL ? bench : { ...bench, lostEvenings: Number(value) });
    });
  }

  protected choose(wish: Wish): void {
    this.store.change('Bench: what the evenings should be like', (m) => withBench(m, { ...m.bench, wish }));
  }
}
