import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { markOn, type MarkPlace, type PlacedMark } from '#core/session';
import type { Area, Brief, Face } from '#core/variety';
import { boxOf } from '#core/variety';

/** Pixels of the length of a craft. */
const SCALE = 150;
const GAP = 26;
/** Bare plastic: light and dark paint both show on it. */
const BARE = '#a3a49d';
/** Behind a chip the paint is scuffed: the light that the dark stands in. */
const LIGHT = '#e9e6da';
/** Pixels that a tap covers to each side. */
const TAP = 8;

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
      [class.cursor-crosshair]="draws()"
      [class.touch-none]="draws()"
      (pointerdown)="begin($event)"
      (pointermove)="goOn($event)"
      (pointerup)="end()"
      (pointercancel)="stroke.set(null)"
    >
      <defs>
        @for (p of brief().placed; track p.layer.id; let k = $index) {
          <radialGradient [attr.id]="id + k">
            @if (p.kind === 'chips') {
              <stop offset="0" [attr.stop-color]="p.layer.colour" stop-opacity="0.95" />
              <stop offset="0.55" [attr.stop-color]="p.layer.colour" stop-opacity="0.9" />
              <stop offset="0.62" [attr.stop-color]="light" stop-opacity="0.9" />
              <stop offset="0.85" [attr.stop-color]="light" stop-opacity="0.7" />
              <stop offset="1" [attr.stop-color]="light" stop-opacity="0" />
            } @else {
              <stop offset="0" [attr.stop-color]="p.layer.colour" stop-opacity="0.95" />
              <stop offset="0.6" [attr.stop-color]="p.layer.colour" stop-opacity="0.6" />
              <stop offset="1" [attr.stop-color]="p.layer.colour" stop-opacity="0" />
            }
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
          [attr.stroke-dasharray]="a.isDone ? null : '3 3'"
          [attr.stroke-width]="a.isDone ? 2.5 : 1"
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
      @for (m of others(); track m.id) {
        <ellipse
          stroke="#161817"
          stroke-width="2.5"
          [attr.fill]="m.colour"
          fill-opacity="0.75"
          [attr.cx]="m.cx"
          [attr.cy]="m.cy"
          [attr.rx]="m.rx"
          [attr.ry]="m.ry"
        />
      }
      @if (path(); as d) {
        <path class="stroke-lamp" fill="none" stroke-width="5" stroke-linecap="round" [attr.d]="d" />
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
  /** what is on the piece */
  readonly done = input<readonly PlacedMark[]>([]);
  /** may one draw on it where marks went? */
  readonly draws = input(false);
  readonly drawn = output<MarkPlace>();
  protected readonly id = `faces-${count++}-`;

  protected readonly bare = BARE;
  protected readonly light = LIGHT;

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
      p.areas.map((a) => {
        const isDone = markOn(this.done(), p.layer.id, a) !== null;
        const at = drawnOn(faces.get(a.face)!, a);
        return { ...at, word: isDone ? `✓ ${at.word}` : at.word, layer: placed.indexOf(p), isDone };
      }),
    );
  });
  /** what is on it and not on its brief: drawn by hand, or ticked on a brief before this one */
  protected readonly others = computed(() => {
    const faces = new Map(this.faces().map((f) => [f.face, f]));
    return this.shown().flatMap((p) =>
      this.done().flatMap((m) => {
        const face = faces.get(m.face);
        const isOnBrief = p.areas.some((a) => markOn([m], p.layer.id, a));
        if (m.layer !== p.layer.id || !face || isOnBrief) return [];
        return [{ id: m.id, colour: p.layer.colour, ...shapeOn(face, m) }];
      }),
    );
  });

  /** what is being drawn: points of the picture, all on the face on which it began */
  protected readonly stroke = signal<{
    readonly face: Drawn;
    readonly points: readonly (readonly [number, number])[];
  } | null>(null);
  protected readonly path = computed(() => {
    const points = this.stroke()?.points;
    return points ? `M${points.map((p) => p.join(' ')).join('L')}` : null;
  });

  protected begin(event: PointerEvent): void {
    if (!this.draws()) return;
    const at = pointOf(event);
    const face = this.faces().find((f) => isOn(f, at));
    if (!face) return;
    (event.currentTarget as SVGSVGElement).setPointerCapture(event.pointerId);
    this.stroke.set({ face, points: [at, at] });
  }

  protected goOn(event: PointerEvent): void {
    const stroke = this.stroke();
    if (!stroke) return;
    const at = pointOf(event);
    if (isOn(stroke.face, at)) this.stroke.set({ ...stroke, points: [...stroke.points, at] });
  }

  protected end(): void {
    const stroke = this.stroke();
    this.stroke.set(null);
    if (stroke) this.drawn.emit(placeOf(stroke.face, stroke.points));
  }
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

/** Where the pointer is in the picture's own measure. */
function pointOf(event: PointerEvent): readonly [number, number] {
  const svg = event.currentTarget as SVGSVGElement;
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM()!.inverse());
  return [at.x, at.y];
}

function isOn(face: Drawn, [x, y]: readonly [number, number]): boolean {
  return x >= face.x && x <= face.x + face.width && y >= face.y && y <= face.y + face.height;
}

/** The place that a stroke covers; a tap is a small one. */
function placeOf(face: Drawn, points: readonly (readonly [number, number])[]): MarkPlace {
  const along = (k: 0 | 1, from: number, size: number): readonly [number, number] => {
    const at = points.map((p) => (p[k] - from) / size);
    const [low, high] = [Math.min(...at), Math.max(...at)];
    return [(low + high) / 2, Math.min(0.5, Math.max(TAP / size, (high - low) / 2))];
  };
  const [x, rx] = along(0, face.x, face.width);
  const [y, ry] = along(1, face.y, face.height);
  return { face: face.face, x, y, rx, ry };
}

function shapeOn(face: Drawn, { x, y, rx, ry }: Omit<MarkPlace, 'face'>) {
  return {
    cx: face.x + x * face.width,
    cy: face.y + y * face.height,
    rx: Math.max(TAP, rx * face.width),
    ry: Math.max(TAP, ry * face.height),
  };
}

function drawnOn(face: Drawn, area: Area) {
  const shape = shapeOn(face, area);
  const { cx, cy, rx, ry } = shape;
  return {
    ...shape,
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
