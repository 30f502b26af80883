import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { dewPointCelsius, dryingRate } from '#core/climate';
import { addDays, minutesOfDay, originOf, weekdayOf, withBench, type Bench } from '#core/muster';
import { NEW_ID } from '../data/environment';
import { Concerns } from '../data/concerns';
import { MusterStore } from '../data/musterStore';
import { Findings } from '../ui/findings';
import { FIELDS } from '../ui/fields';
import { NumberField } from '../ui/numberField';
import { CheckField } from '../ui/checkField';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { TextField } from '../ui/textField';
import { monthName, weekdayName } from '../ui/words';
import { AirChart } from './airChart';
import { BusyCalendar } from './busyCalendar';
import { InstrumentsPanel } from './instrumentsPanel';
import { HoursPanel } from './hoursPanel';
import { PeoplePanel } from './peoplePanel';
import { ToolsPanel } from './toolsPanel';
import { WishPanel } from './wishPanel';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { viewOf } from '../ui/viewOf';

const DAY_MINUTES = 1440;

type Weekly = Bench['weekly'][number];
type BenchException = Bench['exceptions'][number];

@Component({
  selector: 'pm-bench-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    Card,
    Button,
    AirChart,
    BusyCalendar,
    HoursPanel,
    PeoplePanel,
    ToolsPanel,
    CheckField,
    ChoiceField,
    Findings,
    InstrumentsPanel,
    NumberField,
    TextField,
    WishPanel,
  ],
  templateUrl: './bench.view.html',
})
export class BenchView {
  protected readonly fields = FIELDS;
  protected readonly store = inject(MusterStore);
  protected readonly concerns = inject(Concerns);
  private readonly newId = inject(NEW_ID);
  protected readonly bench = computed(() => this.store.muster()!.bench);
  protected readonly findings = computed(() => this.store.findings().filter((f) => viewOf(f) === 'bench'));
  protected readonly days = [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ name: weekdayName(weekday), weekday }));

  /** Share of the day at which a time stands, in percent, for the lamps. */
  protected readonly share = (time: string): number => (100 * minutesOfDay(time)) / DAY_MINUTES;

  protected readonly airs = computed(() => {
    const { day, night } = this.bench().climate;
    const words = (rate: number): string =>
      rate >= 1 ? `${rate.toFixed(1)} × as fast` : `${(1 / rate).toFixed(1)} × as slow`;
    return [
      { key: 'day' as const, title: 'By day', air: day },
      { key: 'night' as const, title: 'By night', air: night },
    ].map((a) => ({
      ...a,
      dew: dewPointCelsius(a.air.celsius, a.air.humidityPercent).toFixed(1),
      rates: [
        { name: 'waterborne', text: words(dryingRate('water', a.air)) },
        { name: 'enamel and lacquer', text: words(dryingRate('solvent', a.air)) },
        { name: 'oil', text: words(dryingRate('oxidation', a.air)) },
      ],
    }));
  });

  /** What each month adds to the day and the night. */
  protected readonly months = computed(() => {
    const known = this.bench().climate.months;
    return Array.from({ length: 12 }, (_, k) => ({
      name: monthName(k + 1),
      ...(known?.[k] ?? { celsius: 0, humidityPercent: 0 }),
    }));
  });

  protected setMonth(index: number, part: { celsius?: number; humidityPercent?: number }): void {
    const months = this.months().map(({ celsius, humidityPercent }, k) => ({
      celsius,
      humidityPercent,
      ...(k === index ? part : {}),
    }));
    this.setClimate({ months }, `air in ${monthName(index + 1)}`);
  }

  /** The zones that the platform knows, and the bench's own. */
  protected readonly zones = computed((): readonly Choice[] => {
    const own = this.bench().timeZone;
    return [...new Set([own, 'UTC', ...Intl.supportedValuesOf('timeZone')])].map((zone) => ({
      value: zone,
      text: zone.replaceAll('_', ' '),
    }));
  });

  protected setZone(timeZone: string): void {
    this.set({ timeZone }, 'time zone');
  }

  protected setCup(cupMl: number | null): void {
    this.store.change('Bench: cup', (m) => withBench(m, { ...m.bench, cupMl: cupMl ?? undefined }));
  }

  protected setExtraction(hasExtraction: boolean): void {
    this.store.change('Bench: extraction', (m) => withBench(m, { ...m.bench, hasExtraction }));
  }

  protected sessionsOfDay(weekday: number): Weekly[] {
    return this.bench()
      .weekly.filter((w) => w.weekday === weekday)
      .sort((a, b) => a.from.localeCompare(b.from));
  }

  protected readonly exceptions = computed(() =>
    [...this.bench().exceptions].sort((a, b) => a.date.localeCompare(b.date)),
  );

  protected dayOf(date: string): string {
    return weekdayName(weekdayOf(date));
  }

  private set(part: Partial<Bench>, what: string): void {
    this.store.change(`Bench: ${what}`, (m) => withBench(m, { ...m.bench, ...part }));
  }

  protected setAirbrush(part: Partial<Bench['airbrush']>, what: string): void {
    this.set({ airbrush: { ...this.bench().airbrush, ...part } }, what);
  }

  protected setLayout(layoutMinutes: number): void {
    this.set({ layoutMinutes }, 'laying out');
  }

  protected setRack(rackPlaces: number): void {
    this.set({ rackPlaces }, 'rack places');
  }

  protected setClimate(part: Partial<Bench['climate']>, what: string): void {
    this.set({ climate: { ...this.bench().climate, ...part } }, what);
  }

  protected addSession(weekday: number): void {
    const last = this.sessionsOfDay(weekday).at(-1);
    const [from, to] = !last
      ? ['19:30', '22:00']
      : last.to < '22:00'
        ? [last.to, '22:00']
        : ['09:00', '11:00'];
    this.set(
      { weekly: [...this.bench().weekly, { id: this.newId(), weekday, from: from!, to: to! }] },
      'session added',
    );
  }

  protected setSession(id: string, part: Partial<Weekly>): void {
    this.set(
      { weekly: this.bench().weekly.map((w) => (w.id === id ? { ...w, ...part } : w)) },
      'session moved',
    );
  }

  protected removeSession(id: string): void {
    this.store.remove('Session taken out of the week', (m) =>
      withBench(m, { ...m.bench, weekly: m.bench.weekly.filter((w) => w.id !== id) }),
    );
  }

  protected addException(): void {
    const muster = this.store.muster()!;
    const taken = new Set(muster.bench.exceptions.map((e) => e.date));
    let { date } = originOf(muster);
    while (taken.has(date)) date = addDays(date, 1);
    this.set(
      { exceptions: [...muster.bench.exceptions, { id: this.newId(), date, sessions: [] }] },
      'exception added',
    );
  }

  protected setException(id: string, part: Partial<BenchException>, what: string): void {
    this.set({ exceptions: this.bench().exceptions.map((e) => (e.id === id ? { ...e, ...part } : e)) }, what);
  }

  protected setExceptionSession(
    e: BenchException,
    index: number,
    part: { from?: string; to?: string },
  ): void {
    this.setException(
      e.id,
      { sessions: e.sessions.map((s, k) => (k === index ? { ...s, ...part } : s)) },
      'exception changed',
    );
  }

  protected addExceptionSession(e: BenchException): void {
    this.setException(
      e.id,
      { sessions: [...e.sessions, { from: '10:00', to: '12:00' }] },
      'exception changed',
    );
  }

  protected removeExceptionSession(e: BenchException, index: number): void {
    this.setException(e.id, { sessions: e.sessions.filter((_, k) => k !== index) }, 'exception changed');
  }

  protected removeException(id: string): void {
    this.store.remove('Exception deleted', (m) =>
      withBench(m, { ...m.bench, exceptions: m.bench.exceptions.filter((e) => e.id !== id) }),
    );
  }
}
