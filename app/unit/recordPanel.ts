import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { wallTime, type Unit } from '#core/muster';
import { duration } from '#core/plan';
import { unitRecord } from '#core/session';
import { Logbook } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Planner } from '../data/planner';
import { Card } from '../ui/card';
import { dateTimeWords, many } from '../ui/words';

/** A unit's record on one sheet: pictures, dates, mixes, hours, and what to do otherwise next time. */
@Component({
  selector: 'pm-record-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Card],
  template: `
    @let r = record();
    <section pmCard>
      <p class="text-[1.1rem]">
        {{ words(unit().pieces.length, 'piece') }} · on the table by {{ table() }}
        @if (r.tableAt; as at) {
          · <strong class="text-open">stood there {{ day(at) }}</strong>
        }
        · <strong>{{ duration(r.spentMinutes) }}</strong> of hands spent,
        {{ duration(r.plannedMinutes) }} still planned
        @if (unit().budgetHours; as hours) {
          of {{ hours }} h
        }
        @if (r.people.length > 0) {
          · {{ r.people.join(', ') }}
        }
      </p>
      @if (r.layers.length === 0) {
        <p class="mt-3 text-mute">Nothing of it is done yet. What is logged at the bench is told here.</p>
      } @else {
        <div class="mt-3 overflow-x-auto">
          <table class="w-full text-left text-[0.95rem]">
            <thead class="text-mute">
              <tr>
                <th class="py-1 pr-4 font-normal">Layer</th>
                <th class="py-1 pr-4 font-normal">When</th>
                <th class="py-1 pr-4 text-right font-normal">Pieces</th>
                <th class="py-1 pr-4 text-right font-normal">Hands</th>
                <th class="py-1 font-normal">As mixed</th>
              </tr>
            </thead>
            <tbody>
              @for (l of r.layers; track l.name) {
                <tr class="border-t border-line">
                  <td class="py-1 pr-4 font-semibold">{{ l.name }}</td>
                  <td class="py-1 pr-4 whitespace-nowrap">
                    {{ day(l.from) }}{{ day(l.from) === day(l.to) ? '' : ' to ' + day(l.to) }}
                  </td>
                  <td class="py-1 pr-4 text-right">{{ l.pieces }}</td>
                  <td class="py-1 pr-4 text-right whitespace-nowrap">{{ duration(l.minutes) }}</td>
                  <td class="py-1">{{ l.mixtures.join(' · ') }}</td>
                </tr>
              }
            </tbody>
          </table>
        </div>
      }
      @if (r.nextTime.length > 0) {
        <h2 class="mt-4 mb-1 text-[1.1rem] text-lamp">Otherwise next time</h2>
        <ul class="list-disc pl-5">
          @for (n of r.nextTime; track $index) {
            <li>{{ n.text }}</li>
          }
        </ul>
      }
      @if (r.reworks.length > 0) {
        <h2 class="mt-4 mb-1 text-[1.1rem] text-lamp">What went wrong</h2>
        <ul class="list-disc pl-5">
          @for (w of r.reworks; track $index) {
            <li>{{ day(w.at) }}: {{ w.text }}</li>
          }
        </ul>
      }
      @if (r.pictures.length > 0) {
        <h2 class="mt-4 mb-1 text-[1.1rem] text-lamp">Pictures</h2>
        <ul class="grid grid-cols-2 gap-3 md:grid-cols-4">
          @for (p of r.pictures; track p.id) {
            <li>
              <img class="w-full rounded border border-line" [src]="p.data" [alt]="p.about" />
              <span class="text-[0.85rem] text-mute">{{ day(p.at) }} · {{ p.about }}</span>
            </li>
          }
        </ul>
      }
    </section>
  `,
})
export class RecordPanel {
  readonly unit = input.required<Unit>();
  private readonly store = inject(MusterStore);
  private readonly planner = inject(Planner);
  private readonly logbook = inject(Logbook);
  protected readonly words = many;
  protected readonly duration = duration;
  protected readonly record = computed(() =>
    unitRecord(this.unit(), this.planner.plan() ?? null, this.logbook.entries()),
  );
  protected readonly table = computed(() => dateTimeWords(this.unit().table));

  protected day(at: string): string {
    return dateTimeWords(wallTime(this.store.muster()?.bench.timeZone ?? 'UTC', at)).split(',')[0]!;
  }
}
