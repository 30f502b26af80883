import {
  ChangeDetectionStrategy,
  Component,
  computed,
  Directive,
  input,
  output,
  signal,
} from '@angular/core';
import { CdkDrag, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { RouterLink } from '@angular/router';
import { oddsWords } from '#core/odds';
import { clockTime, dayName, eveningOf, runsOf, thereWords, type PlanSession } from '#core/plan';
import type { Origin } from '#core/muster';
import { many } from '../ui/words';
import type { Lamp, TimeAxis } from './timeAxis';

const WIDE = 130;
/** An evening that overruns more often than that is marked; less often than that nobody need hear of it. */
const LIKELY = 0.5;
const WORTH_A_WORD = 0.1;
/** Height of what hands do, all of them together, in pixels. */
const STRIP = 14;

/** A run as the strip shows it. */
interface StripRun {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly colour: string;
  readonly text: string;
  readonly isSelected: boolean;
}

/** One run in the strip of what hands do. */
@Directive({
  selector: 'button[pmHandRun]',
  host: {
    type: 'button',
    tabindex: '-1',
    class: 'hand-run absolute',
    '[class.is-selected]': 'run().isSelected',
    '[style.left.px]': 'run().x',
    '[style.top.px]': 'run().y',
    '[style.width.px]': 'run().width',
    '[style.height.px]': 'run().height',
    '[style.background]': 'run().colour',
    '[title]': 'run().text',
  },
})
export class HandRun {
  readonly run = input.required<StripRun>({ alias: 'pmHandRun' });
}

/** The head of a session: when, how busy, what kind of evening, and as a strip what the hands do, run by run. */
@Component({
  selector: 'pm-lamp-head',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CdkDrag, CdkDropList, HandRun, RouterLink],
  template: `
    @let session = lamp().session;
    <div class="lamp-head flex h-full flex-col overflow-hidden border-t-4 border-lamp">
      <a
        class="block min-h-0 grow px-2 pt-1"
        [routerLink]="['/sheet', session.index + 1]"
        [title]="
          'Run sheet for ' + dayName(origin(), session.start) + (evening().kind ? ': ' + evening().kind : '')
        "
      >
        <span class="flex items-baseline justify-between gap-2 whitespace-nowrap"
          ><strong class="font-title text-[1.05rem]">{{ dayName(origin(), session.start) }}</strong>
          @if (lamp().width > WIDE) {
            <span class="text-[0.85rem] text-mute"
              >{{ clockTime(origin(), session.start) }}–{{ clockTime(origin(), session.end) }}</span
            >
          }
        </span>
        <span class="mt-0.5 flex h-1.5 gap-0.5"
          ><span class="block h-full min-w-0 grow overflow-hidden rounded bg-pleat"
            ><span class="block h-full bg-lamp" [style.width.%]="percent(session.busy)"></span
          ></span>
          @if (isLikelyOver()) {
            <span class="block h-full w-2.5 shrink-0 rounded bg-shut"></span>
          }
        </span>
        @if (lamp().width > WIDE) {
          <span class="mt-0.5 block truncate text-[0.85rem]">{{
            evening().kind || (isPlanned() ? 'free' : '…')
          }}</span>
        }
        <span class="block truncate text-[0.8rem] text-mute" [title]="counts()">{{ counts() }}</span>
      </a>
      <div
        class="relative h-[18px] shrink-0 border-t border-line bg-pleat"
        (pointerenter)="isNear.set(true)"
        cdkDropList
        cdkDropListSortingDisabled
        [cdkDropListData]="lamp().session"
        (cdkDropListDropped)="drop($event)"
      >
        @for (run of runs(); track run.id) {
          @if (isNear()) {
            <button [pmHandRun]="run" cdkDrag [cdkDragData]="run.id" (click)="chosen.emit(run.id)">
              <span class="sr-only">{{ run.text }}</span>
            </button>
          } @else {
            <button [pmHandRun]="run" (click)="chosen.emit(run.id)">
              <span class="sr-only">{{ run.text }}</span>
            </button>
          }
        }
      </div>
    </div>
  `,
})
export class LampHead {
  readonly lamp = input.required<Lamp>();
  readonly axis = input.required<TimeAxis>();
  readonly origin = input.required<Origin>();
  readonly selectedId = input.required<string | null>();
  /** is there a plan yet? */
  readonly isPlanned = input.required<boolean>();
  /** share of the futures in which something of it is left over; null: not known */
  readonly overrun = input<number | null>(null);
  readonly chosen = output<string>();
  /** a run, by its first step, was dropped on this session */
  readonly dropped = output<{ readonly step: string; readonly session: PlanSession }>();

  /** Runs can be carried once a pointer comes near: ready-made for that, hundreds of them would be slow to scroll. */
  protected readonly isNear = signal(false);
  protected readonly WIDE = WIDE;
  protected readonly dayName = dayName;
  protected readonly clockTime = clockTime;
  protected readonly percent = (share: number): number => Math.round(share * 100);
  protected readonly isLikelyOver = computed(() => (this.overrun() ?? 0) > LIKELY);
  protected readonly evening = computed(() => eveningOf(this.lamp().session.steps));
  protected readonly counts = computed(() => {
    const { runs, swaps } = this.evening();
    const { busy } = this.lamp().session;
    const wide = this.lamp().width > WIDE;
    if (!this.isPlanned()) return '';
    const { session } = this.lamp();
    // What a narrow lamp cuts off is the share, which its bar shows as well.
    const parts = [
      ...(runs > 0 && wide ? [`${many(runs, 'run')}, ${many(swaps, 'swap')}`] : []),
      `${this.percent(busy)} %${wide ? ' busy' : ''}`,
    ];
    if (session.there.length > 0) parts.push(thereWords(this.origin(), session, session.there));
    const overrun = this.overrun();
    if (overrun !== null && overrun >= WORTH_A_WORD) parts.push(`overruns ${oddsWords(overrun)}`);
    return parts.join(' · ');
  });
  protected drop(event: CdkDragDrop<PlanSession, PlanSession, string>): void {
    const session = event.container.data;
    if (event.container !== event.previousContainer) this.dropped.emit({ step: event.item.data, session });
  }

  protected readonly runs = computed((): StripRun[] => {
    const { x, session } = this.lamp();
    const axis = this.axis();
    const selected = this.selectedId();
    // Each pair of hands has its own part of the strip.
    const hands = [...new Set(session.there.map((p) => p.name))];
    const height = STRIP / Math.max(1, hands.length);
    return runsOf(session.steps).map((run) => {
      const first = run[0]!;
      const from = Math.max(session.start, first.start);
      const to = Math.min(session.end, run[run.length - 1]!.end);
      const left = axis.xOf(from) - x;
      const on = run.length > 1 ? `${run.length} pieces` : first.piece.name;
      return {
        id: first.id,
        x: left,
        y: 2 + height * Math.max(0, hands.indexOf(first.doer?.who ?? '')),
        height: height - (hands.length > 1 ? 1 : 0),
        width: Math.max(3, axis.xOf(to) - x - left - 1),
        colour: first.layer.colour,
        text: `${clockTime(this.origin(), from)}–${clockTime(this.origin(), to)} ${first.layer.name}, ${on}${first.doer ? `, ${first.doer.who}` : ''}`,
        isSelected: run.some((s) => s.id === selected),
      };
    });
  });
}
