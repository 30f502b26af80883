import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { originOf, withBench, type Bench } from '#core/muster';
import { clockTime, daylightOn } from '#core/plan';
import { MusterStore } from '../data/musterStore';
import { CheckField } from '../ui/checkField';
import { FIELDS } from '../ui/fields';
import { NumberField } from '../ui/numberField';
import { SpanList } from './spanList';
import { Card } from '../ui/card';

/** When the bench is dark, when the compressor is still, and when it is light outside. */
@Component({
  selector: 'pm-hours-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Card, CheckField, NumberField, SpanList],
  template: `
    <section pmCard aria-labelledby="hours">
      <h2 id="hours" class="mb-1 text-[1.25rem]">Days away, quiet hours, daylight</h2>
      <h3 class="mt-2 mb-1 text-[1.05rem]">Nobody is at the bench</h3>
      <pm-span-list
        type="date"
        what="Days away"
        addText="Add days away"
        [items]="bench().away ?? []"
        [fresh]="firstDay()"
        (changed)="set({ away: $event }, 'days away')"
      />
      <h3 class="mt-4 mb-1 text-[1.05rem]">No compressor, every day</h3>
      <pm-span-list
        type="time"
        what="Quiet hours"
        addText="Add quiet hours"
        [items]="bench().quiet ?? []"
        [fresh]="night"
        (changed)="set({ quiet: $event }, 'quiet hours')"
      />
      <h3 class="mt-4 mb-1 text-[1.05rem]">Daylight, for layers that are only for outdoors</h3>
      <pm-check
        label="The place of the bench is known"
        [value]="bench().place !== undefined"
        (valueChange)="setPlace($event)"
      />
      @if (bench().place; as p) {
        <div class="mt-2 grid grid-cols-2 gap-3">
          <pm-number
            label="Latitude, north positive"
            unit="°"
            [of]="fields.place.latitude"
            [value]="p.latitude"
            (valueChange)="set({ place: { latitude: $event!, longitude: p.longitude } }, 'place')"
          />
          <pm-number
            label="Longitude, east positive"
            unit="°"
            [of]="fields.place.longitude"
            [value]="p.longitude"
            (valueChange)="set({ place: { latitude: p.latitude, longitude: $event! } }, 'place')"
          />
        </div>
      }
      <p class="mt-2 text-[0.95rem]" data-testid="daylight">{{ sun() }}</p>
    </section>
  `,
})
export class HoursPanel {
  protected readonly fields = FIELDS;
  private readonly store = inject(MusterStore);
  protected readonly bench = computed(() => this.store.muster()!.bench);
  protected readonly night = { from: '21:00', to: '08:00' };
  protected readonly firstDay = computed(() => {
    const { date } = originOf(this.store.muster()!);
    return { from: date, to: date };
  });
  protected readonly sun = computed(() => {
    const muster = this.store.muster()!;
    const origin = originOf(muster);
    const light = daylightOn(muster, origin.date);
    if (!light) return `On ${origin.date} the sun does not rise there.`;
    const span = `from ${clockTime(origin, light[0])} to ${clockTime(origin, light[1])}`;
    return muster.bench.place
      ? `On ${origin.date} the sun is up ${span}.`
      : `Until the place is known, daylight is taken to be short: ${span} on ${origin.date}, the shorter of the days at 50° north and south.`;
  });

  protected set(part: Partial<Bench>, what: string): void {
    this.store.change(`Bench: ${what}`, (m) => withBench(m, { ...m.bench, ...part }));
  }

  protected setPlace(isKnown: boolean): void {
    this.set({ place: isKnown ? { latitude: 50, longitude: 10 } : undefined }, 'place');
  }
}
