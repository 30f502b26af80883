import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Sight } from '#core/optics';

interface Spot {
  readonly points: string;
  readonly colour: string;
}

/** Three sides of a block: its corners, and how much lamp light falls on each. */
const SIDES = [
  { points: '110,12 208,40 118,78 18,44', shade: 0 },
  { points: '18,44 118,78 118,146 18,106', shade: 0.22 },
  { points: '118,78 208,40 208,100 118,146', shade: 0.4 },
] as const;
/** Lines that the block is cut by: panel lines, where a wash stays. */
const RECESSES = ['64,28 163,59', '18,75 118,112', '118,112 208,70'] as const;
const EDGES = ['18,44 118,78 208,40', '118,78 118,146'] as const;
/** Where marks sit: on edges first, then faces; more of them the more a share is. */
const ON_EDGES: readonly (readonly [number, number])[] = [
  [40, 52],
  [150, 63],
  [118, 96],
  [84, 67],
  [182, 51],
  [118, 128],
  [62, 59],
  [136, 70],
  [28, 47],
  [196, 45],
  [104, 73],
  [118, 110],
];
const ON_FACES: readonly (readonly [number, number])[] = [
  [52, 92],
  [160, 92],
  [84, 110],
  [186, 74],
  [34, 66],
  [140, 108],
  [70, 80],
  [172, 64],
  [104, 124],
  [150, 80],
  [44, 78],
  [194, 90],
];

/** A finished zone as a small lit block: faces, recesses, edges, and what is scattered on them. */
@Component({
  selector: 'pm-look-block',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 226 156" class="block w-full" role="img" [attr.aria-label]="label()">
      @for (side of sides; track side.points) {
        <polygon [attr.points]="side.points" [attr.fill]="sight().face" />
      }
      @for (line of recesses; track line) {
        <polyline [attr.points]="line" fill="none" stroke-width="4" [attr.stroke]="sight().recess" />
      }
      @for (line of edges; track line) {
        <polyline
          [attr.points]="line"
          fill="none"
          stroke-width="3"
          stroke-linejoin="round"
          stroke-linecap="round"
          [attr.stroke]="sight().edge"
        />
      }
      @for (s of spots(); track $index) {
        <polygon [attr.points]="s.points" [attr.fill]="s.colour" />
      }
      @for (side of sides; track side.points) {
        <polygon [attr.points]="side.points" fill="#000" [attr.fill-opacity]="side.shade" />
      }
      @if (shine() > 0) {
        <polygon points="60,31 92,20 128,31 96,42" fill="#fff" [attr.fill-opacity]="shine()" />
      }
    </svg>
  `,
})
export class LookBlock {
  readonly sight = input.required<Sight>();
  readonly label = input('The zone as a block under the lamp');
  protected readonly sides = SIDES;
  protected readonly recesses = RECESSES;
  protected readonly edges = EDGES;
  /** A surface that shines throws the lamp back. */
  protected readonly shine = computed(
    () => ({ matt: 0, satin: 0.1, gloss: 0.28, metal: 0.2, wet: 0.4 })[this.sight().sheen],
  );
  protected readonly spots = computed((): Spot[] => {
    let edge = 0;
    let face = 0;
    return this.sight().marks.flatMap((m): Spot[] => {
      const many = Math.min(9, Math.max(1, Math.round(m.share * 22)));
      return Array.from({ length: many }, (_, k) => {
        const on = m.surface === 'edge';
        const places = on ? ON_EDGES : ON_FACES;
        const [x, y] = places[(on ? edge++ : face++) % places.length]!;
        const r = 2.2 + ((k * 7) % 4);
        return {
          colour: m.colour,
          points: `${x - r},${y + 1} ${x},${y - r * 0.7} ${x + r * 1.1},${y - 1} ${x + r * 0.4},${y + r}`,
        };
      });
    });
  });
}
