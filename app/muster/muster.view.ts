import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { map } from 'rxjs';
import { MusterFileError, readMuster, writeMuster } from '#core/exchange';
import {
  addDays,
  duplicatedUnit,
  withoutUnit,
  withUnit,
  type Muster,
  type Recipe,
  type Unit,
} from '#core/muster';
import { dayName, duration, type PlanUnit } from '#core/plan';
import { NEW_ID, ZONE } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { Notices } from '../data/notices';
import { Logbook } from '../data/logbook';
import { budgetOf, type Budget } from '#core/session';
import { Planner } from '../data/planner';
import { download, fileName } from '../ui/download';
import { Findings } from '../ui/findings';
import { TextField } from '../ui/textField';
import { UnitEditor } from './unitEditor';

const MONTH = new Intl.DateTimeFormat('en', { month: 'short', timeZone: 'UTC' });

/** Days from the plan's beginning to a new unit's table date. */
const NEW_UNIT_DAYS = 14;

@Component({
  selector: 'pm-muster-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Findings, TextField, UnitEditor, RouterLink],
  templateUrl: './muster.view.html',
})
export class MusterView {
  protected readonly store = inject(MusterStore);
  private readonly planner = inject(Planner);
  private readonly logbook = inject(Logbook);
  private readonly notices = inject(Notices);
  private readonly newId = inject(NEW_ID);
  private readonly zone = inject(ZONE);
  private readonly router = inject(Router);
  private readonly route = inject(ActivatedRoute);

  protected readonly muster = computed(() => this.store.muster()!);
  protected readonly units = computed(() =>
    [...this.muster().units].sort((a, b) => a.table.localeCompare(b.table) || a.name.localeCompare(b.name)),
  );
  private readonly chosenId = toSignal(this.route.queryParamMap.pipe(map((q) => q.get('unit'))), {
    initialValue: null,
  });
  protected readonly chosen = computed(
    () => this.muster().units.find((u) => u.id === this.chosenId()) ?? null,
  );
  protected readonly chosenFindings = computed(() =>
    this.store.findings().filter((f) => f.place.view === 'muster' && f.place.unit === this.chosenId()),
  );
  protected readonly fileFaults = signal<readonly { path: string; text: string }[]>([]);
  private readonly planUnits = computed(
    () => new Map(this.planner.plan()?.units.map((u) => [u.id, u]) ?? []),
  );

  private readonly budgets = computed(() => {
    const plan = this.planner.plan();
    const muster = this.muster();
    const log = this.logbook.entries();
    const found = new Map<string, Budget>();
    for (const unit of plan ? muster.units : []) {
      const budget = budgetOf(muster, unit, plan!, log);
      if (budget) found.set(unit.id, budget);
    }
    return found;
  });
  protected readonly duration = duration;

  protected budget(unit: Unit): Budget | null {
    return this.budgets().get(unit.id) ?? null;
  }

  protected choose(unit: string | null): void {
    void this.router.navigate([], { relativeTo: this.route, queryParams: { unit } });
  }

  protected recipeOf(id: string | null): Recipe | null {
    return this.muster().recipes.find((r) => r.id === id) ?? null;
  }

  protected faulty(unit: Unit): boolean {
    return this.store.findings().some((f) => f.severity === 'error' && f.place.unit === unit.id);
  }

  protected standing(unit: Unit): { text: string; late: boolean } | null {
    const planned: PlanUnit | undefined = this.planUnits().get(unit.id);
    if (!planned) return null;
    if (planned.lateMinutes > 0) return { text: `late by ${duration(planned.lateMinutes)}`, late: true };
    const n = planned.spareSessions;
    return {
      text:
        n > 0
          ? `${n} ${n === 1 ? 'session' : 'sessions'} to spare`
          : `${duration(planned.spareMinutes)} to spare`,
      late: false,
    };
  }

  /** `Tue 16 Mar, 19:00` */
  protected table(unit: Unit): string {
    const month = MONTH.format(new Date(`${unit.table}Z`));
    return `${dayName({ date: unit.table.slice(0, 10), zone: 'UTC' }, 0)} ${month}, ${unit.table.slice(11)}`;
  }

  protected addUnit(): void {
    const id = this.newId();
    const muster = this.muster();
    const unit: Unit = {
      id,
      name: 'New unit',
      table: `${addDays(muster.startsOn.slice(0, 10), NEW_UNIT_DAYS)}${muster.startsOn.slice(10)}`,
      readyFrom: null,
      importance: 3,
      pieces: [
        {
          id: this.newId(),
          name: 'Piece 1',
          recipe: muster.recipes[0]?.id ?? null,
          count: 1,
          places: 1,
          joins: null,
        },
      ],
    };
    this.store.change('Unit added', (m) => withUnit(m, unit));
    this.choose(id);
  }

  protected change(unit: Unit, what: string): void {
    this.store.change(`${unit.name}: ${what}`, (m) => withUnit(m, unit));
  }

  protected duplicate(unit: Unit, copies: number): void {
    this.store.remove(`${unit.name} copied ${copies} ×`, (m) =>
      duplicatedUnit(m, unit.id, copies, this.newId),
    );
  }

  protected delete(unit: Unit): void {
    this.store.remove(`${unit.name} deleted`, (m) => withoutUnit(m, unit.id));
    this.choose(null);
  }

  protected rename(name: string): void {
    this.store.change('Muster renamed', (m) => ({ ...m, name }));
  }

  protected startOn(startsOn: string): void {
    this.store.change('Beginning of the plan moved', (m) => ({ ...m, startsOn: startsOn.slice(0, 16) }));
  }

  protected save(): void {
    const muster: Muster = this.muster();
    download(`${fileName(muster.name)}.json`, 'application/json', writeMuster(muster));
  }

  /** A file that is no muster leaves everything as it was and says where it is wrong. */
  protected async open(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    try {
      await this.store.add(readMuster(await file.text(), this.zone), `${file.name} brought in`);
      this.fileFaults.set([]);
      this.choose(null);
      this.notices.tell(`${file.name} is brought in as a muster of its own, beside the others.`);
    } catch (error) {
      this.fileFaults.set(
        error instanceof MusterFileError
          ? error.faults
          : [{ path: file.name, text: `can’t be read: ${String(error)}` }],
      );
      this.notices.tell(`${file.name} was not brought in; everything is as it was.`);
    }
  }
}
