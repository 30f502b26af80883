import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  signal,
  viewChild,
  DestroyRef,
} from '@angular/core';
import { dryingRate, unfitness } from '#core/climate';
import { airAt, dateTimeAfter, originOf, sessionsOf, spellsOf, type Muster } from '#core/muster';

const DAYS = 7;
const HOUR = 60;
const FAMILIES = [
  { drying: 'water', name: 'waterborne', colour: '--wet', dash: 'solid' },
  { drying: 'solvent', name: 'enamel and lacquer', colour: '--lamp', dash: 'dash' },
  { drying: 'oxidation', name: 'oil', colour: '--shut', dash: 'dot' },
] as const;

/** The air of a week by the hour, and what it does to each family: how many times the nominal drying takes. */
@Component({
  selector: 'pm-air-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div #chart class="h-[300px] w-full" role="img" [attr.aria-label]="summary()"></div>
    @if (fault(); as text) {
      <p class="text-shut">{{ text }}</p>
    }
    <p class="mt-1 text-[0.9rem] text-mute">{{ summary() }}</p>
  `,
})
export class AirChart {
  readonly muster = input.required<Muster>();
  private readonly chart = viewChild.required<ElementRef<HTMLElement>>('chart');
  protected readonly fault = signal<string | null>(null);
  private readonly destroyed = inject(DestroyRef);

  private readonly hours = computed(() => {
    const muster = this.muster();
    const spells = spellsOf(muster, DAYS);
    const origin = originOf(muster);
    return Array.from({ length: DAYS * 24 }, (_, h) => ({
      at: dateTimeAfter(origin, h * HOUR),
      air: airAt(spells, h * HOUR),
    }));
  });
  protected readonly summary = computed(() => {
    const hours = this.hours();
    const shut = hours.filter((h) => unfitness('paint', h.air) !== null).length;
    const rates = hours.map((h) => 1 / dryingRate('water', h.air));
    return (
      `Seven days by the hour from ${hours[0]!.at.slice(0, 10)}: waterborne paint takes ${Math.min(...rates).toFixed(1)} to ${Math.max(...rates).toFixed(1)} times its nominal drying; ` +
      (shut > 0 ? `in ${shut} hours no paint may go on at all.` : 'paint may go on at any hour.')
    );
  });
  private readonly lamps = computed(() => {
    const muster = this.muster();
    const origin = originOf(muster);
    return sessionsOf(muster, DAYS).map((s) => ({
      from: dateTimeAfter(origin, s.start),
      to: dateTimeAfter(origin, s.end),
    }));
  });

  constructor() {
    effect(() => {
      const hours = this.hours();
      const lamps = this.lamps();
      const box = this.chart().nativeElement;
      void this.draw(box, hours, lamps);
    });
    this.destroyed.onDestroy(
      () =>
        void import('plotly.js-cartesian-dist-min').then((p) => p.default.purge(this.chart().nativeElement)),
    );
  }

  private async draw(
    box: HTMLElement,
    hours: readonly { at: string; air: { celsius: number; humidityPercent: number } }[],
    lamps: readonly { from: string; to: string }[],
  ): Promise<void> {
    try {
      const plotly = (await import('plotly.js-cartesian-dist-min')).default;
      const style = getComputedStyle(document.documentElement);
      const colour = (name: string): string => style.getPropertyValue(name).trim();
      const x = hours.map((h) => h.at);
      const foggy = hours.flatMap((h, k) => (unfitness('paint', h.air) ? [k] : []));
      await plotly.react(
        box,
        [
          ...FAMILIES.map((f) => ({
            x,
            y: hours.map((h) => 1 / dryingRate(f.drying, h.air)),
            name: f.name,
            type: 'scatter' as const,
            mode: 'lines' as const,
            line: { color: colour(f.colour), width: 2.5, dash: f.dash },
            hovertemplate: '%{y:.1f} × nominal<extra>' + f.name + '</extra>',
          })),
          {
            x,
            y: hours.map((h) => h.air.humidityPercent),
            name: 'humidity, %',
            type: 'scatter' as const,
            mode: 'lines' as const,
            yaxis: 'y2' as const,
            line: { color: colour('--mute'), width: 1, dash: 'dashdot' },
            hovertemplate: '%{y:.0f} %<extra>humidity</extra>',
          },
        ],
        {
          margin: { l: 52, r: 48, t: 30, b: 36 },
          paper_bgcolor: 'rgba(0,0,0,0)',
          plot_bgcolor: 'rgba(0,0,0,0)',
          font: {
            color: colour('--ink'),
            family: 'Atkinson Hyperlegible Next Variable, sans-serif',
            size: 14,
          },
          showlegend: true,
          legend: { orientation: 'h', y: 1.16, x: 0 },
          xaxis: { type: 'date', tickformat: '%a %d', dtick: 86_400_000, gridcolor: colour('--line') },
          yaxis: {
            title: { text: 'times nominal drying' },
            type: 'log',
            gridcolor: colour('--line'),
            tickvals: [0.5, 1, 2, 5, 10, 20, 50],
          },
          yaxis2: {
            overlaying: 'y',
            side: 'right',
            range: [0, 100],
            ticksuffix: ' %',
            showgrid: false,
            tickmode: 'array',
            tickvals: [0, 25, 50, 75, 100],
          },
          shapes: [
            ...lamps.map((l) => ({
              type: 'rect',
              xref: 'x',
              yref: 'paper',
              x0: l.from,
              x1: l.to,
              y0: 0,
              y1: 1,
              fillcolor: colour('--lamp'),
              opacity: 0.13,
              line: { width: 0 },
            })),
            ...foggy.map((k) => ({
              type: 'rect',
              xref: 'x',
              yref: 'paper',
              x0: x[k],
              x1: x[k + 1] ?? x[k],
              y0: 0,
              y1: 0.05,
              fillcolor: colour('--shut'),
              line: { width: 0 },
            })),
          ],
        },
        { displayModeBar: false, responsive: true },
      );
      this.fault.set(null);
    } catch (error) {
      this.fault.set(`The chart could not be drawn (${String(error)}); the sentence below says the same.`);
    }
  }
}
