import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { clockTime, moment, type PlanStep } from '#core/plan';
import type { Origin } from '#core/muster';
import type { Block, Row } from './rows';
import type { TimeAxis } from './timeAxis';

/** One row of the plan, drawn: hands, tides, gates and the flag of its table date. Drawn anew only when something of it changes. */
@Component({
  selector: 'pm-plan-row',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let row = this.row();
    <svg class="block overflow-visible" tabindex="-1" [attr.width]="axis().width" [attr.height]="row.height">
      @for (b of row.blocks; track b.step.id) {
        @if (b.tide.line) {
          <path [attr.d]="b.tide.wet" [attr.fill]="b.step.layer.colour" fill-opacity="0.9" />
          <path [attr.d]="b.tide.workable" [attr.fill]="b.step.layer.colour" fill-opacity="0.9" />
          <path [attr.d]="b.tide.workable" fill="url(#hatch)" />
          <path [attr.d]="b.tide.nearly" [attr.fill]="b.step.layer.colour" fill-opacity="0.55" />
          <path [attr.d]="b.tide.nearly" fill="url(#dots)" />
          <path [attr.d]="b.tide.line" class="tide-line" fill="none" />
        }
        @if (b.gate; as own) {
          <g class="gate" [class.is-soft]="own.isSoft">
            <path [attr.d]="posts(own)" fill="none" />
            <text [attr.x]="(own.opens + own.closes) / 2" [attr.y]="row.base + 18" text-anchor="middle">
              {{ own.text }}
            </text>
          </g>
        }
      }
      @for (b of row.blocks; track b.step.id) {
        @if (b.setupWidth > 0.5) {
          <rect
            class="setup"
            [attr.x]="b.setupX"
            [attr.y]="row.base - row.tideHeight + 6"
            [attr.width]="b.setupWidth"
            [attr.height]="row.tideHeight - 6"
          >
            <title>Getting ready, {{ b.step.setup }} min</title>
          </rect>
        }
        <g
          role="button"
          class="block-step"
          [attr.data-step]="b.step.id"
          [class.is-selected]="b.step.id === selectedId()"
          [attr.tabindex]="b.step.id === tabStop() ? 0 : -1"
          [attr.aria-label]="labels()[$index]"
          [attr.aria-pressed]="b.step.id === selectedId()"
          (click)="chosen.emit(b.step.id)"
          (keydown.enter)="chosen.emit(b.step.id)"
          (keydown.space)="chosen.emit(b.step.id); $event.preventDefault()"
        >
          <rect
            class="hit"
            [attr.x]="b.x - 2"
            [attr.y]="row.base - row.tideHeight - 4"
            [attr.width]="b.width + 4"
            [attr.height]="row.tideHeight + 10"
            fill="transparent"
          />
          <rect
            class="paint"
            [attr.x]="b.x"
            [attr.y]="row.base - row.tideHeight"
            [attr.width]="b.width"
            [attr.height]="row.tideHeight"
            rx="2"
            [attr.fill]="b.step.layer.colour"
          />
          <rect class="hands" [attr.x]="b.x" [attr.y]="row.base + 1" [attr.width]="b.width" height="4" />
          <title>{{ labels()[$index] }}</title>
        </g>
        @if (b.label) {
          <text
            class="step-label"
            [attr.x]="b.x"
            [attr.y]="row.base - row.tideHeight - 6 - b.labelLevel * 15"
          >
            {{ b.label }}
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
  readonly origin = input.required<Origin>();
  readonly selectedId = input.required<string | null>();
  /** the window after the selected step, where it stands in this row */
  readonly gate = input.required<Block['gate']>();
  /** the one step that takes part in tabbing, where this row is the one to hold it */
  readonly tabStop = input.required<string | null>();
  readonly chosen = output<string>();

  protected readonly labels = computed(() => this.row().blocks.map((b) => this.labelOf(b.step)));

  private labelOf(step: PlanStep): string {
    const origin = this.origin();
    return `${step.layer.name}, ${step.piece.name}, ${moment(origin, step.start)} to ${clockTime(origin, step.end)}`;
  }

  /** The two posts of a gate. */
  protected posts({ opens, closes }: NonNullable<Block['gate']>): string {
    const { base, tideHeight } = this.row();
    const [foot, head] = [base + 4, base - tideHeight - 6];
    return `M${opens} ${foot}V${head}h5M${closes} ${foot}V${head}h-5`;
  }
}
