import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { WORDS } from './glossary';

let count = 0;

/** A word of the bench with what it means, a press away, where it stands. */
@Component({
  selector: 'pm-word',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let w = word();
    <button
      type="button"
      class="-my-2 min-h-11 min-w-11 cursor-help text-left text-[0.85rem] text-mute underline decoration-dotted underline-offset-4"
      [attr.popovertarget]="id"
    >
      {{ text() || w.word + '?' }}
    </button>
    <div
      popover
      class="m-auto w-[min(26rem,92vw)] rounded-lg border border-lamp bg-raised p-4 text-[1rem] font-normal text-ink shadow-2xl"
      [id]="id"
    >
      <span class="flex items-start gap-4">
        <svg viewBox="0 0 96 48" class="h-14 w-28 shrink-0" aria-hidden="true">
          @for (part of w.drawing; track $index) {
            <path
              [attr.d]="part.d"
              [attr.fill]="part.fill ?? 'none'"
              [attr.stroke]="part.stroke ?? 'none'"
              stroke-width="2"
            />
          }
        </svg>
        <span
          ><strong class="font-title text-[1.1rem]">{{ w.word }}</strong
          ><br /><span class="text-mute">{{ w.means }}</span></span
        >
      </span>
    </div>
  `,
})
export class WordHelp {
  readonly name = input.required<(typeof WORDS)[number]['word']>();
  readonly text = input('');
  protected readonly id = `word-${count++}`;
  protected readonly word = computed(() => WORDS.find((w) => w.word === this.name())!);
}
