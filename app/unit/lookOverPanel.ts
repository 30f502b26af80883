import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { instantOf, minutesUntil, wallTime, type Unit } from '#core/muster';
import { oddsWords } from '#core/odds';
import { duration } from '#core/plan';
import {
  curesFor,
  lastDone,
  lookedEntry,
  lookOver,
  onTable,
  recipesOf,
  reworkEntry,
  unitRecord,
  type Cure,
  type LookItem,
} from '#core/session';
import { standing, type LogEntry, type New } from '#core/log';
import { BenchClock } from '../data/benchClock';
import { Forecasts } from '../data/forecasts';
import { Logbook, NOT_SAVED_YET, type Written } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Planner } from '../data/planner';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { ChoiceField } from '../ui/choiceField';
import { FIELDS } from '../ui/fields';
import { NumberField } from '../ui/numberField';
import { TextField } from '../ui/textField';
import { many } from '../ui/words';
import { ReferenceStrip } from './referenceStrip';

/** Minutes of hands and of drying that a small repair takes, where nothing is said. */
const REPAIR = { minutes: 8, dryMinutes: 60 };
const MOST_CURES = 4;
const MOST_PICTURES = 6;

/** The look before the table: the list of a unit, ticked thing by thing; what is not right becomes work in the plan. */
@Component({
  selector: 'pm-look-over-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, Card, ChoiceField, NumberField, ReferenceStrip, TextField],
  templateUrl: './lookOverPanel.html',
})
export class LookOverPanel {
  readonly unit = input.required<Unit>();
  private readonly store = inject(MusterStore);
  private readonly planner = inject(Planner);
  private readonly logbook = inject(Logbook);
  private readonly clock = inject(BenchClock);
  private readonly forecasts = inject(Forecasts);
  protected readonly fields = FIELDS;
  protected readonly words = many;
  protected readonly fault = signal<string | null>(null);

  protected readonly told = computed(() => {
    const plan = this.planner.plan();
    const muster = this.store.muster();
    if (!plan || !muster) return null;
    const minute = minutesUntil(plan.origin, instantOf(this.clock.now()));
    return lookOver(muster, this.unit(), plan, this.logbook.entries(), minute);
  });
  protected readonly recipes = computed(() => {
    const muster = this.store.muster();
    return muster ? recipesOf(muster, this.unit()) : [];
  });
  /** of the unit, the newest */
  protected readonly pictures = computed(() =>
    unitRecord(this.unit(), null, this.logbook.entries()).pictures.slice(-MOST_PICTURES).reverse(),
  );
  protected readonly good = computed(
    () => this.told()?.items.filter((i) => i.verdict === 'good').length ?? 0,
  );
  /** how its date stands, by the plan and by the odds */
  protected readonly standing = computed(() => {
    const planned = this.planner.plan()?.units.find((u) => u.id === this.unit().id);
    if (!planned) return '';
    const odds = this.forecasts.told()?.forecast.units.find((u) => u.id === this.unit().id);
    const date =
      planned.lateMinutes > 0
        ? `Late by ${duration(planned.lateMinutes)}`
        : `${duration(planned.spareMinutes)} to spare`;
    const word = this.planner.state() === 'planning' ? ' (planning…)' : '';
    return `${date}${word}${odds ? ` · ${oddsWords(odds.inTime)}` : ''}`;
  });
  protected readonly tableAt = computed(() => {
    const at = this.told()?.tableAt;
    const zone = this.store.muster()?.bench.timeZone ?? 'UTC';
    return at ? wallTime(zone, at).replace('T', ', ') : null;
  });

  /** the thing that is not right, while it is said what is done about it */
  protected readonly wrong = signal<LookItem | null>(null);
  protected readonly piece = linkedSignal(() => this.wrong()?.pieces[0] ?? '');
  protected readonly what = linkedSignal(() => `Put right: ${this.wrong()?.text.split(':')[0] ?? ''}`);
  protected readonly minutes = linkedSignal(() => (this.wrong(), REPAIR.minutes));
  protected readonly dryMinutes = linkedSignal(() => (this.wrong(), REPAIR.dryMinutes));
  protected readonly pieces = computed(() => {
    const of = this.wrong()?.pieces ?? [];
    return this.unit()
      .pieces.filter((p) => of.includes(p.id))
      .map((p) => ({ value: p.id, text: p.name }));
  });
  protected readonly on = computed(() => {
    const plan = this.planner.plan();
    return plan ? lastDone(plan, this.logbook.entries(), this.piece()) : null;
  });
  /** what usually mends such a layer */
  protected readonly cures = computed((): readonly Cure[] => {
    const plan = this.planner.plan();
    const step = this.on();
    return plan && step
      ? curesFor(plan, this.logbook.entries(), step)
          .filter((c) => c.again.length === 0 && c.minutes > 0)
          .slice(0, MOST_CURES)
      : [];
  });

  protected turn(item: LookItem): Promise<void> {
    if (item.verdict === 'good') {
      const said = standing(this.logbook.entries()).filter(
        (e) => e.kind === 'looked' && e.unit === this.unit().id && e.item === item.id,
      );
      return this.write(() => this.logbook.takeBack(said));
    }
    if (this.wrong()?.id === item.id) this.wrong.set(null);
    return this.write(() => this.logbook.add(lookedEntry(this.unit(), item, 'good')));
  }

  protected startWrong(item: LookItem): void {
    this.wrong.set(this.wrong()?.id === item.id ? null : item);
  }

  protected take(cure: Cure): void {
    this.what.set(`${cure.trouble}: ${cure.cure}`);
    this.minutes.set(cure.minutes);
    this.dryMinutes.set(cure.dryMinutes);
  }

  /** Work in the plan, and the thing is looked at again when it is done. */
  protected async rework(): Promise<void> {
    const item = this.wrong();
    const step = this.on();
    if (!item || !step) return;
    const entries: New<LogEntry>[] = [
      reworkEntry({
        trouble: 'Looked over before the table',
        cure: this.what(),
        minutes: this.minutes(),
        dryMinutes: this.dryMinutes(),
        on: step,
        again: [],
      }),
      lookedEntry(this.unit(), item, 'rework'),
    ];
    await this.write(() => this.logbook.addAll(entries));
    this.wrong.set(null);
    this.planner.replan();
  }

  protected putOnTable(): Promise<void> {
    return this.write(() => this.logbook.add(onTable(this.unit())));
  }

  private async write(deed: () => Promise<Written>): Promise<void> {
    const { isSaved } = await deed();
    this.fault.set(isSaved ? null : `This ${NOT_SAVED_YET}`);
  }
}
