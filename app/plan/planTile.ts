import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { clockTime, moment } from '#core/plan';
import type { Origin } from '#core/muster';
import { stepAt, type Body, type Gate, type Tile } from './rows';
import type { TimeAxis } from './timeAxis';

/** A stretch of a row: its runs, tides, gates and names. Drawn once, whatever else comes into sight beside it. */
@Component({
  // eslint-disable-next-line @angular-eslint/component-selector -- part of a drawing: it has to be a group of one
  selector: 'g[pmPlanTile]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (b of tile().bodies; track b.id) {
      @if (b.tide.line) {
        <svg:path [attr.d]="b.tide.wet + b.tide.workable" [attr.fill]="colourOf(b)" fill-opacity="0.9" />
        <svg:path [attr.d]="b.tide.workable" fill="url(#hatch)" />
        <svg:path [attr.d]="b.tide.nearly" [attr.fill]="colourOf(b)" fill-opacity="0.55" />
        <svg:path [attr.d]="b.tide.nearly" fill="url(#dots)" />
        <svg:path [attr.d]="b.tide.line" class="tide-line" fill="none" />
      }
      @for (own of b.gates; track own.opens) {
        <svg:g class="gate" [class.is-soft]="own.isSoft">
          <path [attr.d]="posts(own, b.base, b.height)" fill="none" />
          <text [attr.x]="(own.opens + own.closes) / 2" [attr.y]="base() + 18" text-anchor="middle">
            {{ own.text }}
          </text>
        </svg:g>
      }
    }
    @for (b of tile().bodies; track b.id) {
      @let picked = pickedOf(b);
      @if (b.setups) {
        <svg:path class="setup" [attr.d]="b.setups"><title>Getting ready</title></svg:path>
      }
      <svg:g
        role="button"
        class="run-body"
        [attr.data-step]="picked?.id ?? b.id"
        [class.is-selected]="picked !== null"
        [attr.tabindex]="holdsTabStop(b) ? 0 : -1"
        [attr.aria-label]="labelOf(b)"
        [attr.aria-pressed]="picked !== null"
        (click)="choose(b, $event)"
        (keydown.enter)="chosen.emit(picked?.id ?? b.id)"
        (keydown.space)="chosen.emit(picked?.id ?? b.id); $event.preventDefault()"
      >
        <rect
          class="hit"
          [attr.x]="b.x - 2"
          [attr.y]="b.base - b.height - 4"
          [attr.width]="b.width + 4"
          [attr.height]="b.height + 10"
          rx="3"
        />
        <path class="paint" [attr.d]="b.fill" [attr.fill]="colourOf(b)" />
        @if (b.seams) {
          <path class="seams" [attr.d]="b.seams" />
        }
        <rect class="hands" [attr.x]="b.x" [attr.y]="b.base + 1" [attr.width]="b.width" height="4" />
        @if (picked && b.steps.length > 1) {
          <rect
            class="picked"
            [attr.x]="axis().xOf(picked.start)"
            [attr.y]="b.base - b.height"
            [attr.width]="widthOf(picked)"
            [attr.height]="b.height"
          />
        }
        @if (isKept()(b)) {
          <path class="pin" [attr.d]="'M' + (b.x + 1) + ' ' + (b.base + 6) + 'h8l-4 8z'" />
        }
        <title>{{ labelOf(b) }}</title>
      </svg:g>
    }
    @for (b of tile().bodies; track b.id) {
      @if (b.label; as label) {
        <svg:text class="step-label" [attr.x]="label.x" [attr.y]="top() - 6 - label.level * 15">
          {{ label.text }}
        </svg:text>
      }
    }
  `,
})
export class PlanTile {
  readonly tile = input.required<Tile>();
  readonly base = input.required<number>();
  readonly tideHeight = input.required<number>();
  readonly axis = input.required<TimeAxis>();
  readonly origin = input.required<Origin>();
  readonly selectedId = input.required<string | null>();
  /** the one step that takes part in tabbing */
  readonly tabStop = input.required<string | null>();
  /** has the user said where this run is to stay? */
  readonly isKept = input.required<(body: Body) => boolean>();
  readonly chosen = output<string>();

  protected readonly posts = posts;
  protected readonly top = (): number => this.base() - this.tideHeight();
  protected readonly colourOf = (body: Body): string => body.steps[0]!.layer.colour;

  protected pickedOf(body: Body): Body['steps'][number] | null {
    const id = this.selectedId();
    return (id !== null && body.steps.find((s) => s.id === id)) || null;
  }

  protected holdsTabStop(body: Body): boolean {
    const id = this.tabStop();
    return id !== null && body.steps.some((s) => s.id === id);
  }

  protected widthOf(step: Body['steps'][number]): number {
    return Math.max(2, this.axis().xOf(step.end) - this.axis().xOf(step.start));
  }

  protected choose(body: Body, event: MouseEvent): void {
    const box = (event.currentTarget as SVGGElement).ownerSVGElement!.getBoundingClientRect();
    this.chosen.emit(stepAt(body, this.axis(), event.clientX - box.left).id);
  }

  protected labelOf({ steps }: Body): string {
    const origin = this.origin();
    const [first] = steps;
    const last = steps[steps.length - 1]!;
    const on = steps.length > 1 ? `${steps.length} pieces` : first!.piece.name;
    return `${first!.layer.name}, ${on}, ${moment(origin, first!.start)} to ${clockTime(origin, last.end)}`;
  }
}

/** The two posts of a gate. */
export function posts({ opens, closes }: Gate, base: number, tideHeight: number): string {
  const [foot, head] = [base + 4, base - tideHeight - 6];
  return `M${opens} ${foot}V${head}h5M${closes} ${foot}V${head}h-5`;
}
