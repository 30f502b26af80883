import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { mixtureWords, type MadeOf, type Product } from '#core/muster';
import { NEW_ID } from '../data/environment';
import { Button } from '../ui/button';
import { MadeOfEditor } from '../ui/madeOfEditor';

type Equivalent = NonNullable<Product['equivalents']>[number];

/** What may stand for a product when it runs out: another one, or what is mixed at home; the best first. */
@Component({
  selector: 'pm-equivalents',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, MadeOfEditor],
  template: `
    <fieldset class="rounded-md border border-line p-3">
      <legend class="px-1 font-semibold">What may stand for it</legend>
      <p class="mb-2 text-[0.9rem] text-mute">
        Offered first when it runs out at the bench: another product, or what you mix at home.
      </p>
      @for (e of equivalents(); track e.id; let i = $index) {
        <div class="mb-3 border-b border-line pb-3">
          <pm-made-of
            [label]="'Stands for it: ' + words(e.madeOf)"
            [parts]="e.madeOf.parts"
            [products]="others()"
            (changed)="put(e, $event.parts)"
          />
        </div>
      }
      <button pmButton="small" [disabled]="others().length === 0" (click)="add()">One that may</button>
      @if (others().length === 0) {
        <span class="ml-2 text-[0.9rem] text-mute">There is nothing else on the shelf.</span>
      }
    </fieldset>
  `,
})
export class EquivalentsEditor {
  readonly product = input.required<Product>();
  readonly products = input.required<readonly Product[]>();
  readonly changed = output<Equivalent[] | undefined>();
  private readonly newId = inject(NEW_ID);
  protected readonly words = mixtureWords;
  protected readonly equivalents = computed(() => this.product().equivalents ?? []);
  /** all but itself, those of its kind first */
  protected readonly others = computed(() => {
    const { id, family } = this.product();
    const rank = (p: Product): number => (p.family === family ? 0 : 1);
    return this.products()
      .filter((p) => p.id !== id)
      .sort((a, b) => rank(a) - rank(b) || a.name.localeCompare(b.name));
  });

  protected add(): void {
    const [first] = this.others();
    if (!first) return;
    const madeOf: MadeOf = {
      parts: [{ id: this.newId(), product: first.id, name: first.name, parts: 1 }],
    };
    this.changed.emit([...this.equivalents(), { id: this.newId(), madeOf }]);
  }

  /** Without any part left it stands for it no more. */
  protected put(equivalent: Equivalent, parts: readonly MadeOf['parts'][number][] | null): void {
    const left = this.equivalents().flatMap((e) =>
      e.id !== equivalent.id
        ? [e]
        : parts === null
          ? []
          : [{ ...e, madeOf: { ...e.madeOf, parts: [...parts] } }],
    );
    this.changed.emit(left.length > 0 ? left : undefined);
  }
}
