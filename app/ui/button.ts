import { Directive, ElementRef, inject, input } from '@angular/core';

export type ButtonKind = '' | 'small' | 'lamp' | 'small lamp';

/** A thing to press: at least 44 px either way, and never by accident the one that sends a form. */
@Directive({
  selector: 'button[pmButton], a[pmButton]',
  host: {
    class: 'btn',
    '[attr.type]': 'type()',
    '[class.btn-small]': "pmButton().startsWith('small')",
    '[class.btn-lamp]': "pmButton().endsWith('lamp')",
  },
})
export class Button {
  readonly pmButton = input<ButtonKind>('');
  readonly sends = input(false);
  private readonly isButton = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement.nodeName === 'BUTTON';

  protected type(): string | null {
    return !this.isButton ? null : this.sends() ? 'submit' : 'button';
  }
}
