import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import type { TestCard as Card } from '#core/muster';
import { filmOfCard } from '#core/optics';
import { Button } from '../ui/button';
import { ColourField } from '../ui/colourField';
import { FileButton } from '../ui/fileButton';

type Spot = keyof Card;

const SPOTS: readonly { readonly key: Spot; readonly name: string }[] = [
  { key: 'white', name: 'bare white' },
  { key: 'black', name: 'bare black' },
  { key: 'overWhite', name: 'paint over white' },
  { key: 'overBlack', name: 'paint over black' },
];
const EMPTY: Card = { white: '#ffffff', black: '#141414', overWhite: '#808080', overBlack: '#606060' };
/** The picture is drawn so wide, and a spot is the mean of so many pixels about the finger. */
const WIDEST = 640;
const HALF_SPOT = 4;

/** One coat of a product over white and black, picked from a picture of it: what the film really does. */
@Component({
  selector: 'pm-test-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, ColourField, FileButton],
  template: `
    <section aria-labelledby="card">
      <h3 id="card" class="mb-1 text-[1.05rem]">Test card</h3>
      <p class="mb-2 text-[0.9rem] text-mute">
        Brush one coat, as you use it, half over white and half over black; let it dry; take a picture by
        daylight. How it covers is then read from it, not from its family.
      </p>
      <div class="mb-2 flex flex-wrap gap-2">
        <pm-file word="Picture of the card" accept="image/*" [camera]="true" (chosen)="show($event)" />
        @if (card()) {
          <button pmButton="small" (click)="changed.emit(undefined)">Forget the card</button>
        } @else if (!hasPicture()) {
          <button pmButton="small" (click)="changed.emit(empty)">Give the four colours by hand</button>
        }
      </div>
      @if (fault(); as text) {
        <p class="mb-2 text-shut" role="alert">{{ text }}</p>
      }
      <div [class.hidden]="!hasPicture()">
        <p class="mb-1" role="status">Touch the {{ spots[turn()]!.name }}.</p>
        <canvas
          #canvas
          class="max-w-full cursor-crosshair border border-line"
          aria-label="Picture of the test card: touch its four fields in turn"
          (click)="pick($event)"
        ></canvas>
      </div>
      @if (shown(); as c) {
        <div class="mt-2 grid grid-cols-2 gap-2 md:grid-cols-4">
          @for (s of spots; track s.key) {
            <pm-colour [label]="s.name" [value]="c[s.key]" (valueChange)="set(s.key, $event)" />
          }
        </div>
        <p class="mt-2" [class]="verdict().isFilm ? 'text-open' : 'text-shut'" role="status">
          {{ verdict().text }}
        </p>
      }
    </section>
  `,
})
export class TestCard {
  readonly card = input<Card | undefined>(undefined);
  readonly changed = output<Card | undefined>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly spots = SPOTS;
  protected readonly empty = EMPTY;
  protected readonly hasPicture = signal(false);
  protected readonly fault = signal<string | null>(null);
  /** which of the four is touched next */
  protected readonly turn = signal(0);
  /** picked so far; kept in the product once all four are */
  private readonly picked = signal<Partial<Card>>({});
  protected readonly shown = computed(() => this.card() ?? null);
  protected readonly verdict = computed(() => {
    const card = this.card();
    const film = card ? filmOfCard(card) : null;
    if (!film)
      return {
        isFilm: false,
        text: 'These four do not belong to one coat: it should be lighter over white than over black, and between bare and paint. Its family’s figure is used.',
      };
    const power = (film.scatter[0] + film.scatter[1] + film.scatter[2]) / 3;
    const how = power > 3 ? 'hides' : power > 1 ? 'covers half' : 'is a tint';
    return {
      isFilm: true,
      text: `One coat ${how}: scattering power ${power.toFixed(1)} (above 3 it hides).`,
    };
  });

  protected async show(file: File): Promise<void> {
    const bitmap = await createImageBitmap(file).catch(() => null);
    if (!bitmap) {
      this.fault.set('This file is no picture that the browser can read.');
      return;
    }
    this.fault.set(null);
    const canvas = this.canvas().nativeElement;
    const scale = Math.min(1, WIDEST / bitmap.width);
    canvas.width = Math.max(1, Math.round(bitmap.width * scale));
    canvas.height = Math.max(1, Math.round(bitmap.height * scale));
    canvas
      .getContext('2d', { willReadFrequently: true })
      ?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
    bitmap.close();
    this.picked.set({});
    this.turn.set(0);
    this.hasPicture.set(true);
  }

  protected pick(event: MouseEvent): void {
    const canvas = this.canvas().nativeElement;
    const box = canvas.getBoundingClientRect();
    const x = ((event.clientX - box.left) * canvas.width) / box.width;
    const y = ((event.clientY - box.top) * canvas.height) / box.height;
    const colour = meanAt(canvas, x, y);
    if (colour === null) return;
    const next = { ...this.picked(), [SPOTS[this.turn()]!.key]: colour };
    this.picked.set(next);
    const { white, black, overWhite, overBlack } = next;
    if (white && black && overWhite && overBlack) {
      this.changed.emit({ white, black, overWhite, overBlack });
      this.hasPicture.set(false);
    } else this.turn.update((n) => n + 1);
  }

  protected set(key: Spot, colour: string): void {
    const card = this.card();
    if (card) this.changed.emit({ ...card, [key]: colour });
  }
}

function meanAt(canvas: HTMLCanvasElement, x: number, y: number): string | null {
  const left = Math.max(0, Math.round(x) - HALF_SPOT);
  const top = Math.max(0, Math.round(y) - HALF_SPOT);
  const data = canvas.getContext('2d')?.getImageData(left, top, 2 * HALF_SPOT + 1, 2 * HALF_SPOT + 1).data;
  if (!data) return null;
  const sum = [0, 0, 0];
  let n = 0;
  for (let k = 0; k < data.length; k += 4) {
    // Beyond the edge of the picture nothing is drawn.
    if (data[k + 3] === 0) continue;
    sum.forEach((_, c) => (sum[c]! += data[k + c]!));
    n++;
  }
  return n === 0
    ? null
    : `#${sum
        .map((v) =>
          Math.round(v / n)
            .toString(16)
            .padStart(2, '0'),
        )
        .join('')}`;
}
