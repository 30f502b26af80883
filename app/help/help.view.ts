import { ChangeDetectionStrategy, Component } from '@angular/core';
import { WORDS } from '../ui/glossary';
import { VIEWS } from '../views';
import { Card } from '../ui/card';

interface Keys {
  readonly where: string;
  readonly keys: readonly (readonly [string, string])[];
}

const KEYS: readonly Keys[] = [
  {
    where: 'Everywhere',
    keys: [
      ['Ctrl K or /', 'find anything, or do it by name'],
      ['Ctrl Z · Ctrl Y', 'undo · redo'],
      ['?', 'this page'],
      ['Esc', 'give up what is being typed; close'],
    ],
  },
  {
    where: 'Plan',
    keys: [
      ['← →', 'the step before and after, in time'],
      ['↑ ↓', 'the step before and after of the same unit'],
      ['Shift ← →', 'carry the run to the session before or after'],
      ['Enter', 'choose the step'],
    ],
  },
  {
    where: 'Tonight',
    keys: [
      ['D', 'done'],
      ['T', 'trouble'],
      ['N', 'not dry yet'],
      ['B', 'begin the run'],
      ['F', 'far view'],
    ],
  },
  { where: 'Recipes', keys: [['Alt ↑ ↓', 'move the layer in the stack']] },
  { where: 'Muster', keys: [['Shift and a tick', 'choose all pieces in between']] },
];

/** The words of the bench and the keys, on one page. */
@Component({
  selector: 'pm-help-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Card],
  template: `
    <div class="mx-auto max-w-[60rem] p-5">
      <h1 class="mb-1 text-[1.9rem]">Help</h1>
      <p class="mb-6 text-mute">All of it works without a network once it has been opened.</p>
      <section class="mb-8" aria-labelledby="views">
        <h2 id="views" class="mb-2 text-[1.3rem]">Where things are</h2>
        <dl class="grid gap-x-6 gap-y-1 sm:grid-cols-[10rem_1fr]">
          @for (v of views; track v.path) {
            <dt class="font-semibold">{{ v.name }}</dt>
            <dd class="mb-1 text-mute sm:mb-0">{{ v.about }}</dd>
          }
        </dl>
      </section>
      <section class="mb-8" aria-labelledby="words">
        <h2 id="words" class="mb-2 text-[1.3rem]">Words of the bench</h2>
        <ul class="grid gap-4 md:grid-cols-2">
          @for (w of words; track w.word) {
            <li pmCard class="flex gap-4">
              <svg viewBox="0 0 96 48" class="h-14 w-28 shrink-0" aria-hidden="true">
                @for (part of w.drawing; track $index) {
                  <path
                    [attr.d]="part.d"
                    [attr.fill]="part.fill ?? 'none'"
                    [attr.stroke]="part.stroke ?? 'none'"
                    stroke-width="2"
                  />
                }
              </svg>
              <p>
                <strong class="font-title text-[1.1rem]">{{ w.word }}</strong><br /><span class="text-mute">{{
                  w.means
                }}</span>
              </p>
            </li>
          }
        </ul>
      </section>
      <section class="mb-8" aria-labelledby="keys">
        <h2 id="keys" class="mb-2 text-[1.3rem]">Keys</h2>
        <div class="grid gap-x-8 gap-y-4 md:grid-cols-2">
          @for (group of keys; track group.where) {
            <div>
              <h3 class="mb-1 text-[1.05rem] text-mute">{{ group.where }}</h3>
              <dl class="grid grid-cols-[9rem_1fr] gap-y-1">
                @for (k of group.keys; track k[0]) {
                  <dt class="font-semibold">{{ k[0] }}</dt>
                  <dd>{{ k[1] }}</dd>
                }
              </dl>
            </div>
          }
        </div>
      </section>
    </div>
  `,
})
export class HelpView {
  protected readonly views = VIEWS;
  protected readonly words = WORDS;
  protected readonly keys = KEYS;
}
