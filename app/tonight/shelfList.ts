import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { PlanStep } from '#core/plan';
import type { ShelfRow, ShelfState } from '#core/session';
import { Button } from '../ui/button';
import { tidePaths } from '../ui/tidePath';
import { many } from '../ui/words';

const WIDTH = 150;
const HEIGHT = 40;
const STATE_WORDS: Readonly<Record<ShelfState, string>> = {
  wet: 'wet',
  drying: 'drying',
  opening: 'drying',
  open: 'OPEN',
  closing: 'CLOSING',
  missed: 'MISSED',
  dry: 'dry by now',
};
const STATE_LOOKS: Readonly<Record<ShelfState, string>> = {
  wet: 'text-wet font-semibold',
  drying: 'text-wet',
  opening: 'text-mute',
  open: 'text-open font-bold',
  closing: 'text-shut font-bold',
  missed: 'text-shut font-bold',
  dry: 'text-open font-semibold',
};
/** So many coats are shown at once; the rest on asking. */
const SHOWN = 6;

/** The drying shelf, coat by coat: each as a tide with its window and the clock's hand. One look a coat is enough. */
@Component({
  selector: 'pm-shelf-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button],
  template: `
    <ul>
      @for (r of shown(); track r.row.key) {
        <li class="border-b border-line py-2.5" data-testid="coat">
          <div class="flex items-start gap-3">
            <button
              type="button"
              class="min-h-11 min-w-0 grow text-left leading-snug"
              [attr.aria-expanded]="opened() === r.row.key"
              (click)="opened.set(opened() === r.row.key ? null : r.row.key)"
            >
              <strong class="block font-title text-[1.1rem]">{{ r.name }}</strong>
              <span [class]="r.look">{{ r.words }}</span>
            </button>
            <div class="shrink-0">
              <svg class="block" aria-hidden="true" [attr.width]="WIDTH" [attr.height]="HEIGHT">
                <path [attr.d]="r.tide.wet + r.tide.workable" [attr.fill]="r.colour" fill-opacity="0.9" />
                <path [attr.d]="r.tide.workable" fill="url(#hatch)" />
                <path [attr.d]="r.tide.nearly" [attr.fill]="r.colour" fill-opacity="0.55" />
                <path [attr.d]="r.tide.nearly" fill="url(#dots)" />
                <path [attr.d]="r.tide.line" class="tide-line" fill="none" />
                <path [attr.d]="'M0 ' + (HEIGHT - 4) + 'H' + WIDTH" stroke="var(--line)" />
                <rect
                  x="0"
                  y="0"
                  [attr.width]="r.now"
                  [attr.height]="HEIGHT"
                  fill="var(--ground)"
                  opacity="0.6"
                />
                @if (r.gate; as g) {
                  <path
                    class="strip-gate"
                    [attr.d]="'M' + g.opens + ' ' + HEIGHT + 'V6H' + g.closes + 'V' + HEIGHT"
                  />
                }
                <path stroke="var(--ink)" stroke-width="2.5" [attr.d]="'M' + r.now + ' 1V' + HEIGHT" />
              </svg>
              <div class="mt-1 flex gap-2">
                <button
                  pmButton="small"
                  class="grow"
                  [attr.aria-label]="r.name + ': dry'"
                  (click)="dry.emit(r.steps)"
                >
                  Dry
                </button>
                <button
                  pmButton="small"
                  class="grow"
                  title="30 min more"
                  [attr.aria-label]="r.name + ': not yet, 30 min more'"
                  (click)="wet.emit(r.steps)"
                >
                  Not yet
                </button>
              </div>
            </div>
          </div>
          @if (r.row.state === 'missed') {
            <button
              pmButton="small"
              class="mt-2 w-full !border-shut"
              [attr.aria-label]="r.name + ': what now?'"
              (click)="trouble.emit(r.steps)"
            >
              What now? Start it again, or leave it
            </button>
          }
          @if (opened() === r.row.key) {
            @if (r.row.state === 'wet') {
              <button pmButton="small" class="mt-2" (click)="touched.emit(r.steps)">
                It can be touched already
              </button>
            }
            <ul class="mt-2 flex flex-col gap-1 pl-3">
              @for (p of r.row.pieces; track p.resting.step.id) {
                <li class="flex flex-wrap items-center gap-2 text-[0.95rem]">
                  <span class="min-w-40 grow basis-full sm:basis-0"
                    >{{ p.resting.step.piece.name }} <span class="text-mute">{{ p.words }}</span></span
                  >
                  <button
                    pmButton="small"
                    [attr.aria-label]="p.resting.step.piece.name + ', ' + r.name + ': dry'"
                    (click)="dry.emit([p.resting.step])"
                  >
                    Dry
                  </button>
                  <button
                    pmButton="small"
                    [attr.aria-label]="p.resting.step.piece.name + ', ' + r.name + ': not yet'"
                    (click)="wet.emit([p.resting.step])"
                  >
                    Not yet
                  </button>
                  <button
                    pmButton="small"
                    class="!border-shut"
                    [attr.aria-label]="p.resting.step.piece.name + ', ' + r.name + ': trouble'"
                    (click)="trouble.emit([p.resting.step])"
                  >
                    Trouble
                  </button>
                </li>
              }
            </ul>
          }
        </li>
      } @empty {
        <li class="text-mute">Nothing is drying.</li>
      }
    </ul>
    @if (rows().length > shown().length) {
      <button pmButton="small" class="mt-2" (click)="showsAll.set(true)">
        Show {{ rows().length - shown().length }} more
      </button>
    }
  `,
})
export class ShelfList {
  readonly rows = input.required<readonly ShelfRow[]>();
  /** minutes since the plan's origin */
  readonly minute = input.required<number>();
  /** touched without a mark: no more than that */
  readonly touched = output<readonly PlanStep[]>();
  /** one look: these are dry, or need more time */
  readonly dry = output<readonly PlanStep[]>();
  readonly wet = output<readonly PlanStep[]>();
  /** something went wrong with these, or their window has shut: what can be done about it is asked for */
  readonly trouble = output<readonly PlanStep[]>();
  protected readonly opened = signal<string | null>(null);
  protected readonly showsAll = signal(false);
  protected readonly WIDTH = WIDTH;
  protected readonly HEIGHT = HEIGHT;

  protected readonly shown = computed(() => {
    const now = this.minute();
    return this.rows()
      .slice(0, this.showsAll() ? undefined : SHOWN)
      .map((row) => {
        const { lead } = row;
        const { layer, tide, end } = lead.step;
        const by = lead.ended - end;
        const until = Math.max(lead.ended + 10, lead.dryAt, lead.gate?.closes ?? 0);
        const span = (until - lead.ended) * 1.08;
        const x = (m: number): number =>
          Math.round(Math.min(WIDTH - 1, Math.max(1, (WIDTH * (m - lead.ended)) / span)) * 10) / 10;
        const steps = row.pieces.map((p) => p.resting.step);
        const only = steps.length === 1 ? steps[0]!.piece.name : null;
        return {
          row,
          steps,
          name: `${layer.name}, ${only ?? many(steps.length, 'piece')}`,
          words: only || lead.gate ? `${STATE_WORDS[row.state]}: ${row.words}` : row.words,
          look: STATE_LOOKS[row.state],
          colour: layer.colour,
          tide: tidePaths(
            {
              from: 0,
              wet: x(Math.min(lead.dryAt, tide.wetUntil + by)),
              workable: x(Math.min(lead.dryAt, Math.max(tide.wetUntil, tide.workableUntil) + by)),
              dry: x(lead.dryAt),
            },
            HEIGHT - 4,
            HEIGHT - 10,
          ),
          gate: lead.gate && { opens: x(lead.gate.opens), closes: x(lead.gate.closes) },
          now: x(now),
        };
      });
  });
}
