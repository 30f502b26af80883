import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { clockTime, moment } from '#core/plan';
import type { Origin } from '#core/muster';
import { stepAt, type Body, type Gate, type Row } from './rows';
import type { TimeAxis } from './timeAxis';

/** From where to where a row is seen, in pixels of the time axis. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** One row of the plan, drawn where it is seen: runs, tides, gates and the flag of its table date. */
@Component({
  selector: 'pm-plan-row',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let row = this.row();
    @let top = row.base - row.tideHeight;
    <svg class="block overflow-visible" tabindex="-1" [attr.width]="axis().width" [attr.height]="row.height">
      @for (b of seen(); track b.id) {
        @if (b.tide.line) {
          <path [attr.d]="b.tide.wet" [attr.fill]="colourOf(b)" fill-opacity="0.9" />
          <path [attr.d]="b.tide.workable" [attr.fill]="colourOf(b)" fill-opacity="0.9" />
          <path [attr.d]="b.tide.workable" fill="url(#hatch)" />
          <path [attr.d]="b.tide.nearly" [attr.fill]="colourOf(b)" fill-opacity="0.55" />
          <path [attr.d]="b.tide.nearly" fill="url(#dots)" />
          <path [attr.d]="b.tide.line" class="tide-line" fill="none" />
        }
        @for (own of b.gates; track own.opens) {
          <g class="gate" [class.is-soft]="own.isSoft">
            <path [attr.d]="posts(own)" fill="none" />
            <text [attr.x]="(own.opens + own.closes) / 2" [attr.y]="row.base + 18" text-anchor="middle">
              {{ own.text }}
            </text>
          </g>
        }
      }
      @for (b of seen(); track b.id) {
        @let picked = pickedOf(b);
        <path class="setup" [attr.d]="b.setups"><title>Getting ready</title></path>
        <g
          role="button"
          class="run-body"
          [attr.data-step]="picked?.id ?? b.id"
          [class.is-selected]="picked !== null"
          [attr.tabindex]="holdsTabStop(b) ? 0 : -1"
          [attr.aria-label]="labelOf(b)"
          [attr.aria-pressed]="picked !== null"
          (click)="choose(b, $event)"
          (keydown.enter)="chosen.emit(picked?.id ?? b.id)"
          (keydown.space)="chosen.emit(picked?.id ?? b.id); $event.preventDefault()"
        >
          <rect
            class="hit"
            [attr.x]="b.x - 2"
            [attr.y]="top - 4"
            [attr.width]="b.width + 4"
            [attr.height]="row.tideHeight + 10"
            rx="3"
          />
          <path class="paint" [attr.d]="b.fill" [attr.fill]="colourOf(b)" />
          <path class="seams" [attr.d]="b.seams" />
          <rect class="hands" [attr.x]="b.x" [attr.y]="row.base + 1" [attr.width]="b.width" height="4" />
          @if (picked && b.steps.length > 1) {
            <rect
              class="picked"
              [attr.x]="axis().xOf(picked.start)"
              [attr.y]="top"
              [attr.width]="widthOf(picked)"
              [attr.height]="row.tideHeight"
            />
          }
          @if (isKept()(b)) {
            <path class="pin" [attr.d]="'M' + (b.x + 1) + ' ' + (row.base + 6) + 'h8l-4 8z'" />
          }
          <title>{{ labelOf(b) }}</title>
        </g>
      }
      @for (b of seen(); track b.id) {
        @if (b.label; as label) {
          <text class="step-label" [attr.x]="label.x" [attr.y]="top - 6 - label.level * 15">
            {{ label.text }}
          </text>
        }
      }
      @if (gate(); as g) {
        <g class="gate" [class.is-soft]="g.isSoft">
          <path [attr.d]="posts(g)" fill="none" />
          <text [attr.x]="(g.opens + g.closes) / 2" [attr.y]="row.base + 18" text-anchor="middle">
            {{ g.text }}
          </text>
        </g>
      }
      @if (!row.piece) {
        <g class="flag">
          <path [attr.d]="'M' + axis().xOf(row.unit.due) + ' 14V' + (row.base + 6)" />
          <path
            [attr.d]="'M' + axis().xOf(row.unit.due) + ' 14h12l-4 5 4 5h-12z'"
            [attr.fill]="row.unit.lateMinutes > 0 ? 'var(--shut)' : 'var(--open)'"
          />
        </g>
      }
    </svg>
  `,
})
export class PlanRow {
  readonly row = input.required<Row>();
  readonly axis = input.required<TimeAxis>();
  readonly span = input.required<Span>();
  readonly origin = input.required<Origin>();
  readonly selectedId = input.required<string | null>();
  /** the window after the selected step, where it stands in this row */
  readonly gate = input.required<Gate | null>();
  /** the one step that takes part in tabbing, where this row is the one to hold it */
  readonly tabStop = input.required<string | null>();
  /** has the user said where this run is to stay? */
  readonly isKept = input.required<(body: Body) => boolean>();
  readonly chosen = output<string>();

  protected readonly seen = computed(() => {
    const { from, to } = this.span();
    return this.row()
      .bodies()
      .filter((b) => b.to >= from && b.from <= to);
  });

  protected readonly colourOf = (body: Body): string => body.steps[0]!.layer.colour;

  protected pickedOf(body: Body): Body['steps'][number] | null {
    const id = this.selectedId();
    return (id !== null && body.steps.find((s) => s.id === id)) || null;
  }

  protected holdsTabStop(body: Body): boolean {
    const id = this.tabStop();
    return id !== null && body.steps.some((s) => s.id === id);
  }

  protected widthOf(step: Body['steps'][number]): number {
    return Math.max(2, this.axis().xOf(step.end) - this.axis().xOf(step.start));
  }

  protected choose(body: Body, event: MouseEvent): void {
    const box = (event.currentTarget as SVGGElement).ownerSVGElement!.getBoundingClientRect();
    this.chosen.emit(stepAt(body, this.axis(), event.clientX - box.left).id);
  }

  protected labelOf({ steps }: Body): string {
    const origin = this.origin();
    const [first] = steps;
    const last = steps[steps.length - 1]!;
    const on = steps.length > 1 ? `${steps.length} pieces` : first!.piece.name;
    return `${first!.layer.name}, ${on}, ${moment(origin, first!.start)} to ${clockTime(origin, last.end)}`;
  }

  /** The two posts of a gate. */
  protected posts({ opens, closes }: Gate): string {
    const { base, tideHeight } = this.row();
    const [foot, head] = [base + 4, base - tideHeight - 6];
    return `M${opens} ${foot}V${head}h5M${closes} ${foot}V${head}h-5`;
  }
}
