import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Area, Brief, Face } from '#core/variety';
import { boxOf } from '#core/variety';

/** Pixels of the length of a craft. */
const SCALE = 150;
const GAP = 26;
/** Bare plastic: light and dark paint both show on it. */
const BARE = '#a3a49d';

interface Drawn {
  readonly face: Face;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** what is said beneath it */
  readonly word: string;
}

let count = 0;

/** A piece as six plain faces, laid out as if unfolded, with soft areas where its marks go. Our own drawing, proportioned by its kind. */
@Component({
  selector: 'pm-faces',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      class="block h-auto w-full"
      [attr.viewBox]="'0 0 ' + size().width + ' ' + size().height"
      role="img"
      [attr.aria-label]="label()"
    >
      <defs>
        @for (p of brief().placed; track p.layer.id; let k = $index) {
          <radialGradient [attr.id]="id + k">
            <stop offset="0" [attr.stop-color]="p.layer.colour" stop-opacity="0.95" />
            <stop offset="0.6" [attr.stop-color]="p.layer.colour" stop-opacity="0.6" />
            <stop offset="1" [attr.stop-color]="p.layer.colour" stop-opacity="0" />
          </radialGradient>
        }
      </defs>
      @for (f of faces(); track f.face) {
        <rect
          class="stroke-mute"
          [attr.fill]="bare"
          stroke-width="1.5"
          rx="5"
          [attr.x]="f.x"
          [attr.y]="f.y"
          [attr.width]="f.width"
          [attr.height]="f.height"
        />
        <text class="fill-mute" font-size="13" [attr.x]="f.x" [attr.y]="f.y + f.height + 15">
          {{ f.word }}
        </text>
      }
      @for (a of areas(); track $index) {
        <ellipse
          [attr.cx]="a.cx"
          [attr.cy]="a.cy"
          [attr.rx]="a.rx"
          [attr.ry]="a.ry"
          [attr.fill]="'url(#' + id + a.layer + ')'"
          [attr.opacity]="a.opacity"
        />
        <ellipse
          stroke="#161817"
          fill="none"
          stroke-dasharray="3 3"
          stroke-width="1"
          [attr.cx]="a.cx"
          [attr.cy]="a.cy"
          [attr.rx]="a.rx"
          [attr.ry]="a.ry"
        />
        @if (a.flow; as flow) {
          <path stroke="#161817" fill="none" stroke-width="1.5" [attr.d]="flow" />
        }
        <text
          fill="#161817"
          font-size="13"
          font-weight="700"
          text-anchor="middle"
          paint-order="stroke"
          [attr.stroke]="bare"
          stroke-width="3"
          [attr.x]="a.cx"
          [attr.y]="a.cy + 4.5"
        >
          {{ a.word }}
        </text>
      }
    </svg>
  `,
})
export class FacesDrawing {
  readonly brief = input.required<Brief>();
  /** one effect alone, by its layer; null: all */
  readonly only = input<string | null>(null);
  /** faces on which nothing goes are left out */
  readonly marked = input(false);
  protected readonly id = `faces-${count++}-`;

  protected readonly bare = BARE;

  /** Opposite faces beside one another, so that they are seen to differ. */
  protected readonly faces = computed((): readonly Drawn[] => {
    const { length, width, height } = boxOf(this.brief().piece);
    const [l, w, h] = [length * SCALE, width * SCALE, height * SCALE];
    const rows = [
      [
        { face: 'left' as const, width: l, height: h, word: 'left' },
        { face: 'right' as const, width: l, height: h, word: 'right' },
      ],
      [
        { face: 'front' as const, width: w, height: h, word: 'front' },
        { face: 'back' as const, width: w, height: h, word: 'back' },
      ],
      [
        { face: 'top' as const, width: l, height: w, word: 'top, ahead at the left' },
        { face: 'under' as const, width: l, height: w, word: 'under' },
      ],
    ];
    const shown = new Set(this.shown().flatMap((p) => p.areas.map((a) => a.face as string)));
    const kept = this.marked() ? paired(rows.flat().filter((f) => shown.has(f.face))) : rows;
    let y = 4;
    return kept.flatMap((row) => {
      let x = 4;
      const drawn = row.map((f) => {
        const at = { ...f, x, y };
        x = 4 + Math.max(l, w) + GAP;
        return at;
      });
      y += Math.max(...row.map((f) => f.height)) + GAP + 4;
      return drawn;
    });
  });
  private readonly shown = computed(() =>
    this.brief().placed.filter((p) => this.only() === null || this.only() === p.layer.id),
  );
  protected readonly size = computed(() => ({
    width: Math.max(...this.faces().map((f) => f.x + f.width)) + 4,
    height: Math.max(...this.faces().map((f) => f.y + f.height)) + 22,
  }));
  protected readonly areas = computed(() => {
    const faces = new Map(this.faces().map((f) => [f.face, f]));
    const { placed } = this.brief();
    return this.shown().flatMap((p) =>
      p.areas.map((a) => ({ ...drawnOn(faces.get(a.face)!, a), layer: placed.indexOf(p) })),
    );
  });
  protected readonly label = computed(
    () =>
      `Where the marks of ${this.brief().piece.name} go: ${this.shown()
        .map((p) => p.name)
        .join(', ')}`,
  );
}

/** Two by two. */
function paired<T>(list: readonly T[]): T[][] {
  return list.flatMap((_, k) => (k % 2 === 0 ? [list.slice(k, k + 2)] : []));
}

function drawnOn(face: Drawn, area: Area) {
  const cx = face.x + area.x * face.width;
  const cy = face.y + area.y * face.height;
  const [rx, ry] = [Math.max(8, area.rx * face.width), Math.max(8, area.ry * face.height)];
  return {
    cx,
    cy,
    rx,
    ry,
    opacity: 0.35 + 0.65 * area.amount,
    word: area.marks === null ? '' : String(area.marks),
    flow:
      area.runs === 'down'
        ? `M${cx + rx * 0.6},${cy - ry} V${cy + ry} m-3,-5 l3,5 l3,-5`
        : area.runs === 'back'
          ? `M${cx - rx},${cy} H${cx + rx} m-5,-3 l5,3 l-5,3`
          : null,
  };
}
