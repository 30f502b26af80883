import { A11yModule } from '@angular/cdk/a11y';
import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { deedWords } from '#core/plan';
import { BenchAlarms } from './benchAlarms';
import { Evening } from './evening';

/** To be read from two metres, and worked with wet hands: the clock, what is in hand, and two halves of the screen to press. */
@Component({
  selector: 'pm-far-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [A11yModule],
  template: `
    <div
      class="fixed inset-0 z-40 flex flex-col bg-ground"
      cdkTrapFocus
      [cdkTrapFocusAutoCapture]="true"
      role="dialog"
      aria-modal="true"
      aria-label="Far view"
    >
      <div class="flex items-baseline justify-between gap-4 px-6 pt-3">
        <p class="far-numerals font-title" data-testid="far-clock">{{ evening.time() }}</p>
        @if (press(); as p) {
          <p class="text-right">
            <strong class="far-numerals font-title" [class]="p.isUrgent ? 'text-shut' : 'text-open'">{{
              p.minutes
            }}</strong>
            <span class="block text-[1.3rem]">min: {{ p.text }}</span>
          </p>
        }
        <button type="button" class="btn" (click)="shut.emit()">Close (F)</button>
      </div>
      <div class="min-h-0 px-6 py-2">
        @if (title(); as t) {
          <p class="far-title font-title">{{ t }}</p>
          <p class="text-[1.8rem]">
            <strong class="text-lamp">{{ piece() }}</strong>
            <span class="text-mute"> {{ ticked() }} of {{ evening.run().length }} ticked</span>
          </p>
        } @else {
          <p class="far-title font-title">Nothing to do now</p>
        }
      </div>
      <div class="grid min-h-0 grow grid-cols-2 gap-3 p-3">
        <button
          type="button"
          class="rounded-xl border-4 border-lamp bg-lamp text-[2.2rem] font-bold text-lamp-ink"
          [disabled]="!title()"
          (click)="evening.nextPiece()"
        >
          {{ last() ? 'Done' : 'Next piece' }}
          <span class="block text-[1.1rem] font-normal">Page down</span>
        </button>
        <button
          type="button"
          class="rounded-xl border-4 border-line bg-board text-[2.2rem] font-bold"
          [disabled]="!evening.isWaiting()"
          (click)="evening.notDry(10)"
        >
          Not dry, +10 min
          <span class="block text-[1.1rem] font-normal">Page up</span>
        </button>
      </div>
    </div>
  `,
})
export class FarView {
  protected readonly evening = inject(Evening);
  private readonly alarms = inject(BenchAlarms);
  readonly shut = output<void>();

  protected readonly title = computed(() => {
    const step = this.evening.step();
    return step && deedWords(step.layer, step.layer.name);
  });
  private readonly open = computed(() => this.evening.run().filter((s) => !this.evening.ticked().has(s.id)));
  protected readonly piece = computed(
    () => this.open()[0]?.piece.name ?? this.evening.step()?.piece.name ?? '',
  );
  protected readonly ticked = computed(() => this.evening.run().length - this.open().length);
  protected readonly last = computed(() => this.open().length <= 1);
  /** What presses: the window that shuts first, else what rings next. */
  protected readonly press = computed(() => {
    const now = this.evening.minute();
    const [live] = this.evening
      .shelf()
      .flatMap(({ lead }) => (lead.gate && lead.gate.closes > now ? [lead] : []))
      .sort((a, b) => a.gate!.closes - b.gate!.closes);
    if (live?.gate) {
      const isOpen = now >= live.gate.opens;
      return {
        minutes: Math.ceil((isOpen ? live.gate.closes : live.gate.opens) - now),
        text: `${live.step.layer.name} ${isOpen ? 'shuts' : 'opens'}`,
        isUrgent: isOpen,
      };
    }
    const next = this.alarms.next();
    return next && { ...next, isUrgent: false };
  });
}
