import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Recipe } from '#core/muster';
import { listed } from '#core/plan';
import { maskOrders, type MaskOrder } from '#core/recipe';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { many } from '../ui/words';

/** Colours sprayed beside one another: how many masks they cost, and the order that needs the fewest, to be taken. */
@Component({
  selector: 'pm-mask-order-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, Card],
  template: `
    @for (o of orders(); track $index) {
      <section pmCard class="mb-3" [attr.aria-label]="'Fewest masks, ' + recipe().name">
        <p>
          <strong>{{ o.colours }}</strong> are sprayed beside one another.
          @if (o.bare) {
            <strong class="mr-1 text-shut">{{ o.bare }}</strong>
          }
          <span data-testid="masks">{{ o.masks }}</span>
        </p>
        @if (o.canBeTaken) {
          <p class="mt-1 text-mute">{{ o.order }}</p>
          <button
            pmButton="small lamp"
            class="mt-2"
            (click)="changed.emit({ recipe: o.recipe, what: 'the order with the fewest masks' })"
          >
            {{ o.word }}
          </button>
        }
      </section>
    }
  `,
})
export class MaskOrderNote {
  readonly recipe = input.required<Recipe>();
  readonly changed = output<{ recipe: Recipe; what: string }>();
  protected readonly orders = computed(() => maskOrders(this.recipe()).map((o) => told(o)));
}

function told(order: MaskOrder) {
  const { colours, now, fewest, bare, isProved } = order;
  const isFewest = now === fewest && bare.length === 0;
  const least = isProved ? 'no order needs fewer' : 'the fewest found';
  return {
    recipe: order.recipe,
    colours: listed(colours.map((l) => `“${l.name}”`)),
    bare:
      bare.length === 0
        ? ''
        : `${listed(bare.map((b) => `${b.zone} when “${b.layer.name}” goes on`))}: nothing covers it.`,
    masks: isFewest
      ? `${many(now, 'mask')} a piece: ${least}.`
      : `${many(now, 'mask')} a piece as it stands; all that has to be covered takes ${fewest}, and ${least}.`,
    canBeTaken: !isFewest,
    order: `In the order ${order.order.map((l) => l.name).join(', then ')}.`,
    word: order.order.every((l, k) => l === colours[k]) ? 'Mask it so' : 'Take this order, with its masks',
  };
}
