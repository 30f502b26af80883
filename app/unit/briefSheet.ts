import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { placedWords, type Brief } from '#core/variety';
import { FacesDrawing } from './facesDrawing';

/** Every brief of a unit, for paper: two pieces beside one another, each with its faces and what goes where. */
@Component({
  selector: 'pm-brief-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FacesDrawing],
  template: `
    <ul class="grid grid-cols-2 gap-4" aria-label="Where marks go, piece by piece">
      @for (b of briefs(); track b.piece.id) {
        <li class="run border border-line p-3">
          <h2 class="text-[1.2rem]">{{ b.piece.name }}</h2>
          <pm-faces [brief]="b" />
          <ul class="mt-2 text-[0.9rem]">
            @for (p of b.placed; track p.layer.id) {
              <li class="flex gap-2">
                <span
                  class="mt-1 inline-block h-3.5 w-3.5 shrink-0 border-2 border-ink"
                  aria-hidden="true"
                ></span>
                <span
                  ><strong>{{ p.name }}{{ p.strength === 'normal' ? '' : ', ' + p.strength }}:</strong>
                  {{ words(p) }}</span
                >
              </li>
            }
          </ul>
        </li>
      }
    </ul>
  `,
})
export class BriefSheet {
  readonly briefs = input.required<readonly Brief[]>();
  protected readonly words = placedWords;
}
