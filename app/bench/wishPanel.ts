import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { withBench, type Wish } from '#core/muster';
import { MusterStore } from '../data/musterStore';
import { Card } from '../ui/card';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { OpenChoiceField, type OpenChoice } from '../ui/openChoice';

const CHOICES: readonly (OpenChoice & { readonly value: Wish })[] = [
  {
    value: 'early',
    text: 'Finish early',
    about:
      'Units are done as soon as they can be: evenings are used to the last minute, and change from task to task more often.',
  },
  {
    value: 'balanced',
    text: 'Balanced',
    about: 'Up to three sessions to spare before each date, then few and long runs.',
  },
  {
    value: 'quiet',
    text: 'Long quiet runs',
    about:
      'As few changes of task and tool as can be found; the dates are kept, but no sessions are held in reserve before them.',
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
  imports: [Card, ChoiceField, OpenChoiceField],
  template: `
    <section pmCard aria-labelledby="wish">
      <h2 id="wish" class="mb-1 text-[1.25rem]">What the evenings should be like</h2>
      <p class="mb-3 text-[0.9rem] text-mute">
        Every date is kept first. Where none asks for them the last minutes of an evening (a seventh, at most
        25) stay free, so that what takes longer finds room. Then:
      </p>
      <pm-open-choice labelledBy="wish" [value]="wish()" [choices]="choices" (valueChange)="choose($event)" />
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

  protected choose(value: string): void {
    const wish = CHOICES.find((c) => c.value === value)?.value;
    if (wish === undefined) return;
    this.store.change('Bench: what the evenings should be like', (m) => withBench(m, { ...m.bench, wish }));
  }
}
