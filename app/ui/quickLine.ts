import { ChangeDetectionStrategy, Component, type ElementRef, input, output, viewChild } from '@angular/core';
import { Button } from './button';

let count = 0;

/** A line that is typed and sent: by Enter or its button. It is emptied by whoever takes what it says, by the answer. */
@Component({
  selector: 'pm-quick-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button],
  template: `
    <form class="flex items-end gap-2" (submit)="$event.preventDefault(); send()">
      <div class="min-w-0 grow">
        <label class="label" [class.sr-only]="quiet()" [for]="id">{{ label() }}</label>
        <textarea
          #line
          class="field block resize-none"
          rows="1"
          autocomplete="off"
          (keydown.enter)="$event.preventDefault(); send()"
          [id]="id"
          [attr.maxlength]="most()"
          [attr.placeholder]="hint() || null"
          [attr.aria-invalid]="fault() !== null"
          [attr.aria-describedby]="fault() ? id + '-fault' : null"
        ></textarea>
      </div>
      <button [sends]="true" [pmButton]="isNext() ? 'lamp' : ''" class="whitespace-nowrap">
        {{ word() }}
      </button>
    </form>
    @if (fault(); as text) {
      <p class="mt-1 text-[0.9rem] text-shut" role="alert" [id]="id + '-fault'">{{ text }}</p>
    }
  `,
})
export class QuickLine {
  readonly label = input.required<string>();
  readonly word = input.required<string>();
  readonly hint = input('');
  /** a list may be pasted into it, a line an entry */
  readonly takesLists = input(false);
  /** it is the next thing to do here */
  readonly isNext = input(false);
  /** the label is for the ear only */
  readonly quiet = input(false);
  /** letters at the most */
  readonly most = input(2000);
  /** why the last line was not taken */
  readonly fault = input<string | null>(null);
  /** a line that is not empty; whoever takes it calls `clear` */
  readonly sent = output<{ readonly text: string; readonly clear: () => void }>();
  protected readonly id = `line-${count++}`;
  private readonly line = viewChild.required<ElementRef<HTMLTextAreaElement>>('line');

  protected send(): void {
    const field = this.line().nativeElement;
    const text = this.takesLists() ? field.value.trim() : field.value.trim().replace(/\s*\n\s*/g, ' ');
    if (text !== '') this.sent.emit({ text, clear: () => (field.value = '') });
  }
}
