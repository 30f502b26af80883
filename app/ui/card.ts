import { Directive, input } from '@angular/core';

export type CardKind = '' | 'lamp' | 'shut';

/** A board on the ground: one matter, framed. Lamp-lit where it is the matter in hand, in the colour of trouble where something is wrong. */
@Directive({
  selector: '[pmCard]',
  host: {
    class: 'block rounded-lg border bg-board p-4',
    '[class.border-line]': "pmCard() === ''",
    '[class.border-lamp]': "pmCard() === 'lamp'",
    '[class.border-shut]': "pmCard() === 'shut'",
  },
})
export class Card {
  readonly pmCard = input<CardKind>('');
}
