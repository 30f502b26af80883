import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { clockTime } from '#core/plan';
import type { Origin } from '#core/muster';
import type { Strip } from '#core/session';

/** Units of the drawing across; its height is pixels. */
const WIDTH = 1000;
const HEIGHT = 56;
const TOP = 14;
const BODY = 30;

/** The evening: its runs in their paints' colours, waits, windows as gates, and the clock's hand. */
@Component({
  selector: 'pm-evening-strip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = drawn();
    <svg
      class="block w-full overflow-visible"
      role="img"
      [attr.aria-label]="words()"
      [attr.viewBox]="'0 0 ' + WIDTH + ' ' + HEIGHT"
      [attr.height]="HEIGHT"
      preserveAspectRatio="none"
    >
      <rect x="0" [attr.y]="TOP" [attr.width]="WIDTH" [attr.height]="BODY" fill="var(--pleat)" />
      @for (w of s.waits; track w.x) {
        <rect
          class="strip-wait"
          [attr.x]="w.x"
          [attr.y]="TOP + 4"
          [attr.width]="w.width"
          [attr.height]="BODY - 8"
          vector-effect="non-scaling-stroke"
        />
      }
      @for (r of s.runs; track r.x) {
        <rect
          [attr.x]="r.x"
          [attr.y]="r.isInHand ? TOP - 4 : TOP"
          [attr.width]="r.width"
          [attr.height]="r.isInHand ? BODY + 8 : BODY"
          [attr.fill]="r.colour"
          [attr.fill-opacity]="r.isDone ? 0.45 : 1"
          [attr.stroke]="r.isInHand ? 'var(--lamp)' : 'var(--ground)'"
          [attr.stroke-width]="r.isInHand ? 3 : 1.5"
          vector-effect="non-scaling-stroke"
        >
          <title>{{ r.name }}</title>
        </rect>
      }
      @for (g of s.gates; track g.opens) {
        <path
          class="strip-gate"
          [attr.d]="'M' + g.opens + ' ' + HEIGHT + 'V4H' + g.closes + 'V' + HEIGHT"
          vector-effect="non-scaling-stroke"
        />
      }
      @if (s.now !== null) {
        <path
          stroke="var(--ink)"
          stroke-width="3"
          vector-effect="non-scaling-stroke"
          [attr.d]="'M' + s.now + ' 2V' + HEIGHT"
        />
      }
    </svg>
    <p class="mt-0.5 flex justify-between gap-3 text-[0.85rem] text-mute">
      <span>{{ clock(strip().from) }}</span>
      @if (gateWords(); as text) {
        <strong class="text-open">{{ text }}</strong>
      }
      <span>{{ clock(strip().to) }}</span>
    </p>
  `,
  host: { class: 'block' },
})
export class EveningStrip {
  readonly strip = input.required<Strip>();
  readonly origin = input.required<Origin>();
  /** minutes since the origin */
  readonly minute = input.required<number>();

  protected readonly WIDTH = WIDTH;
  protected readonly HEIGHT = HEIGHT;
  protected readonly TOP = TOP;
  protected readonly BODY = BODY;
  protected readonly clock = (minute: number): string => clockTime(this.origin(), minute);

  protected readonly drawn = computed(() => {
    const { from, to, runs, waits, gates } = this.strip();
    const x = (m: number): number =>
      Math.round((WIDTH * (Math.min(to, Math.max(from, m)) - from)) / Math.max(1, to - from));
    const now = this.minute();
    return {
      runs: runs.map((r) => ({
        x: x(r.start),
        width: Math.max(4, x(r.end) - x(r.start)),
        colour: r.steps[0]!.layer.colour,
        name: `${r.steps[0]!.layer.name}, ${this.clock(r.start)}`,
        isDone: r.isDone,
        isInHand: r.isInHand,
      })),
      waits: waits.map((w) => ({ x: x(w.start), width: x(w.end) - x(w.start) })),
      gates: gates.map((g) => ({ opens: x(g.opens), closes: x(g.closes) })),
      now: now >= from && now <= to ? x(now) : null,
    };
  });
  protected readonly gateWords = computed(() => {
    const now = this.minute();
    const [next] = this.strip()
      .gates.filter((g) => g.closes > now)
      .sort((a, b) => a.closes - b.closes);
    if (!next) return null;
    return now < next.opens
      ? `window opens ${this.clock(Math.ceil(next.opens))}`
      : `window shuts ${this.clock(Math.floor(next.closes))}`;
  });
  protected readonly words = computed(() => {
    const { runs, done, waits } = this.strip();
    return `The evening: ${done} of ${runs.length} runs done, ${waits.length} ${waits.length === 1 ? 'wait' : 'waits'}`;
  });
}
