import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { Button } from './button';

/** A button for what can't be taken back: it says what goes, and asks once. */
@Component({
  selector: 'pm-confirm',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button],
  host: { class: 'contents' },
  template: `
    @if (isAsked()) {
      <span role="alert">{{ warning() }}</span>
      <button pmButton="small" (click)="isAsked.set(false); confirmed.emit()">{{ yes() }}</button>
      <button pmButton="small" (click)="isAsked.set(false)">Keep it</button>
    } @else {
      <button pmButton="small" (click)="isAsked.set(true)">{{ word() }}…</button>
    }
  `,
})
export class Confirm {
  readonly word = input.required<string>();
  readonly warning = input.required<string>();
  readonly yes = input.required<string>();
  readonly confirmed = output();
  protected readonly isAsked = signal(false);
}
