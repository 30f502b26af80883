import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Origin } from '#core/muster';
import { PlanTile, posts } from './planTile';
import type { Body, Gate, Row } from './rows';
import type { Fan } from './fan';
import type { TimeAxis } from './timeAxis';

/** No letter of a mask's name is wider on average. */
const COVER_LETTER = 7;

/** From where to where a row is seen, in pixels of the time axis. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** One row of the plan, drawn where it is seen, and the flag of its table date. */
@Component({
  selector: 'pm-plan-row',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [PlanTile],
  template: `
    @let row = this.row();
    <svg class="block overflow-visible" tabindex="-1" width="1" [attr.height]="row.height">
      @if (!row.piece && fan(); as f) {
        <g class="fan">
          <title>{{ f.text }}</title>
          <path [attr.d]="f.inTime" fill="var(--open)" fill-opacity="0.45" />
          <path [attr.d]="f.late" fill="var(--shut)" fill-opacity="0.5" />
        </g>
      }
      @for (tile of seen(); track tile.key) {
        <g
          pmPlanTile
          [tile]="tile"
          [base]="row.base"
          [tideHeight]="row.tideHeight"
          [axis]="axis()"
          [origin]="origin()"
          [selectedId]="selectedId()"
          [tabStop]="tabStop()"
          [isKept]="isKept()"
          (chosen)="chosen.emit($event)"
        />
      }
      @for (c of covers(); track c.key) {
        <g class="cover">
          <title>{{ c.text }}</title>
          <rect [attr.x]="c.x" [attr.y]="row.height - 9" [attr.width]="c.width" height="5" />
          @if (c.hasRoom) {
            <text [attr.x]="c.x + 4" [attr.y]="row.height - 11">{{ c.text }}</text>
          }
        </g>
      }
      @if (gate(); as g) {
        <g class="gate" [class.is-soft]="g.isSoft">
          <path [attr.d]="posts(g, row.base, row.tideHeight)" fill="none" />
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
  /** when its unit is likely ready, where that is known */
  readonly fan = input<Fan | null>(null);
  readonly chosen = output<string>();

  protected readonly posts = posts;
  protected readonly covers = computed(() => {
    const { from, to } = this.span();
    return this.row()
      .covers()
      .filter((c) => c.x + c.width >= from && c.x <= to)
      .map((c) => ({ ...c, hasRoom: c.width > c.text.length * COVER_LETTER }));
  });
  protected readonly seen = computed(() => {
    const { from, to } = this.span();
    return this.row()
      .tiles()
      .filter((t) => t.to >= from && t.from <= to);
  });
}
