import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { Subscription } from 'rxjs';
import { dewPointCelsius, unfitness } from '#core/climate';
import { readReadings, ReadingsError } from '#core/exchange';
import { instantOf, instantOfWall, sortedReadings, wallTime, withBench, type Reading } from '#core/muster';
import { NOW } from '../data/environment';
import { Instruments } from '../data/instruments';
import { MusterStore } from '../data/musterStore';
import { Button } from '../ui/button';
import { FileButton } from '../ui/fileButton';

/** The thermo-hygrometer, the forecast, and readings from a file: all of them drive the drying clocks. */
@Component({
  selector: 'pm-instruments',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FileButton, Button],
  template: `
    <h3 class="mt-4 mb-2 text-[1.05rem]">Instruments</h3>
    <div class="flex flex-wrap items-center gap-2">
      @if (latest(); as r) {
        <p class="grow" data-testid="reading">
          <strong class="text-[1.3rem]"
            >{{ r.celsius.toFixed(1) }} °C, {{ r.humidityPercent.toFixed(0) }} %</strong
          >
          <span class="text-mute"> at {{ clock(r) }}, dew point {{ dew(r) }} °C</span>
          @if (unfit(r); as why) {
            <span class="block text-shut">No paint now: {{ why }}.</span>
          }
        </p>
        <button pmButton="small" (click)="keep(r)">Keep this reading</button>
        <button pmButton="small" (click)="stop()">Stop reading</button>
      } @else {
        <button pmButton="small" (click)="listen()" [disabled]="isListening()">
          {{ isListening() ? 'Waiting for the instrument…' : 'Read the thermo-hygrometer' }}
        </button>
      }
      <button pmButton="small" (click)="forecast()">Take the three-day forecast</button>
      <pm-file word="Bring in readings (CSV)" accept=".csv,text/csv" (chosen)="bringIn($event)" />
      @if (count() > 0) {
        <button pmButton="small" (click)="clear()">Forget all {{ count() }} readings</button>
      }
    </div>
    @if (fault(); as text) {
      <p class="mt-2 whitespace-pre-line text-shut" role="alert">{{ text }}</p>
    }
    <p class="mt-1 text-[0.85rem] text-mute">
      The instruments that ship with the program are simulated. A file needs the columns time, celsius,
      humidity_percent.
    </p>
  `,
})
export class InstrumentsPanel {
  private readonly store = inject(MusterStore);
  private readonly instruments = inject(Instruments);
  private readonly now = inject(NOW);
  private readonly destroyed = inject(DestroyRef);
  private listening: Subscription | null = null;

  protected readonly latest = signal<Reading | null>(null);
  protected readonly isListening = signal(false);
  protected readonly fault = signal<string | null>(null);
  protected readonly count = computed(() => this.store.muster()?.bench.readings?.length ?? 0);

  private readonly zone = computed(() => this.store.muster()?.bench.timeZone ?? 'UTC');
  protected readonly clock = (r: Reading): string => wallTime(this.zone(), r.at).slice(11);
  protected readonly dew = (r: Reading): string => dewPointCelsius(r.celsius, r.humidityPercent).toFixed(1);
  protected readonly unfit = (r: Reading): string | null => unfitness('paint', r);

  protected listen(): void {
    this.fault.set(null);
    this.isListening.set(true);
    this.listening = this.instruments
      .readings()
      .pipe(takeUntilDestroyed(this.destroyed))
      .subscribe({
        next: (r) => this.latest.set(r),
        error: (error: Error) => {
          this.stop();
          this.fault.set(error.message);
        },
      });
  }

  protected stop(): void {
    this.listening?.unsubscribe();
    this.listening = null;
    this.latest.set(null);
    this.isListening.set(false);
  }

  protected keep(reading: Reading): void {
    this.merge([reading], 'Reading kept');
  }

  protected forecast(): void {
    const muster = this.store.muster()!;
    const now = instantOf(this.now());
    const begins = instantOfWall(muster.bench.timeZone, muster.startsOn);
    this.instruments.forecast(now > begins ? now : begins).then(
      (hours) => {
        this.fault.set(null);
        this.merge(hours, `Forecast of ${hours.length} hours taken`);
      },
      (error: Error) => this.fault.set(error.message),
    );
  }

  protected bringIn(file: File): void {
    file.text().then(
      (text) => {
        try {
          const readings = readReadings(text, this.zone());
          this.fault.set(null);
          this.merge(readings, `${readings.length} readings brought in`);
        } catch (error) {
          this.fault.set(
            error instanceof ReadingsError
              ? `${file.name} is left aside; nothing is changed:\n${error.message}`
              : `${file.name} cannot be read: ${String(error)}`,
          );
        }
      },
      (error: unknown) => this.fault.set(`${file.name} cannot be read: ${String(error)}`),
    );
  }

  protected clear(): void {
    this.store.remove('Readings forgotten', (m) => withBench(m, { ...m.bench, readings: [] }));
  }

  private merge(readings: readonly Reading[], label: string): void {
    this.store.change(label, (m) =>
      withBench(m, { ...m.bench, readings: sortedReadings([...(m.bench.readings ?? []), ...readings]) }),
    );
  }
}
