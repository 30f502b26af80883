import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Logbook } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Button } from '../ui/button';
import { CheckField } from '../ui/checkField';
import { FIELDS } from '../ui/fields';
import { FileButton } from '../ui/fileButton';
import { NumberField } from '../ui/numberField';
import { QuickLine } from '../ui/quickLine';
import { CupInHand } from './cupInHand';
import { Evening } from './evening';

/** All that is needed seldom: what was otherwise than planned, what is written down, and the ends of an evening. */
@Component({
  selector: 'pm-more-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, CheckField, FileButton, NumberField, QuickLine, RouterLink],
  template: `
    <section class="rounded-lg border border-line bg-board p-4" aria-labelledby="more">
      <div class="mb-2 flex items-start justify-between gap-3">
        <h2 id="more" class="text-[1.3rem]">More</h2>
        <button pmButton="small" class="shrink-0 whitespace-nowrap" (click)="shut.emit()">Close</button>
      </div>
      <div class="grid gap-x-6 gap-y-4 md:grid-cols-2">
        @if (evening.step(); as s) {
          <div class="flex flex-col gap-2" role="group" aria-label="This run">
            <h3 class="text-[1.05rem] text-lamp">This run</h3>
            <button pmButton [attr.aria-pressed]="evening.begun()?.step === s.id" (click)="evening.begin()">
              {{
                evening.begun()?.step === s.id ? 'Being timed; begin anew (B)' : 'Begin: take the time (B)'
              }}
            </button>
            <div class="flex items-end gap-2">
              <pm-number
                label="It took, in all"
                unit="min"
                [of]="fields.asked.minutesMore"
                [value]="took()"
                (valueChange)="took.set($event!)"
              />
              <button pmButton (click)="did(evening.done(took()))">Done in that</button>
            </div>
            @if (cup.cup(); as c) {
              <fieldset class="flex flex-col gap-1">
                <legend class="text-mute">Really mixed, for the whole run</legend>
                @for (p of c.parts; track p.name) {
                  <pm-number
                    [label]="p.name"
                    unit="ml"
                    [of]="fields.asked.millilitres"
                    [value]="p.ml"
                    (valueChange)="cup.setPart(p.name, $event!)"
                  />
                }
                @if (cup.isSaid()) {
                  <button pmButton="small" (click)="cup.asPlanned()">As planned after all</button>
                }
              </fieldset>
            }
            @if ((s.layer.passes?.expected ?? 1) > 1) {
              <button pmButton (click)="did(evening.oneMorePass())">One more pass</button>
              <button pmButton (click)="did(evening.enough())">Enough passes</button>
            }
            <button pmButton (click)="did(evening.skip())">Leave it off</button>
          </div>
        }
        <div class="flex flex-col gap-2" role="group" aria-label="Not dry">
          <h3 class="text-[1.05rem] text-lamp">Not dry</h3>
          <div class="flex items-end gap-2">
            <pm-number
              label="What it waits for needs"
              unit="min more"
              [of]="fields.asked.minutesMore"
              [value]="more()"
              (valueChange)="more.set($event!)"
            />
            <button pmButton [disabled]="!evening.isWaiting()" (click)="did(evening.notDry(more()))">
              Give it that
            </button>
          </div>
          <h3 class="mt-2 text-[1.05rem] text-lamp">Write down</h3>
          <pm-quick-line
            label="Note for the log"
            word="Note it"
            [most]="1000"
            (sent)="evening.keepNote($event.text, isForNextTime()); $event.clear(); isForNextTime.set(false)"
          />
          @if (evening.step()) {
            <pm-check
              label="Tell me again when this layer is in hand next"
              [value]="isForNextTime()"
              (valueChange)="isForNextTime.set($event)"
            />
          }
          <pm-file word="Picture of it" accept="image/*" camera (chosen)="evening.takePicture($event)" />
          @if (cup.leftOver(); as l) {
            <div class="flex flex-col gap-2" role="group" aria-label="Left over">
              <h3 class="mt-2 text-[1.05rem] text-lamp">Left over of “{{ l.label }}”</h3>
              @if (l.keeps) {
                <div class="flex items-end gap-2">
                  <pm-number
                    label="Left in the cup"
                    unit="ml"
                    [of]="fields.asked.millilitres"
                    [value]="jarMl() ?? l.ml"
                    (valueChange)="jarMl.set($event)"
                  />
                  <button pmButton (click)="did(cup.intoJar(jarMl() ?? l.ml))">Into a jar</button>
                </div>
              } @else {
                <p class="text-mute">{{ l.family }} hardens in its cup: it does not keep.</p>
              }
            </div>
          }
        </div>
        @for (p of evening.pilots(); track p.piece) {
          <div class="flex flex-col gap-2" role="group" [attr.aria-label]="'Pilot ' + p.name">
            <h3 class="text-[1.05rem] text-lamp">Pilot {{ p.name }} ({{ p.recipe.name }})</h3>
            <button
              pmButton
              [attr.aria-pressed]="p.verdict === 'approved'"
              (click)="did(evening.judge(p, 'approved'))"
            >
              It is right: the others go on, the recipe is frozen
            </button>
            <a
              pmButton
              [routerLink]="['/recipes', p.recipe.id]"
              [queryParams]="{ layer: p.layer }"
              (click)="evening.judge(p, 'changed')"
              >The recipe must change: the others wait</a
            >
          </div>
        }
        @if (people().length > 0) {
          <div class="flex flex-wrap items-center gap-2" role="group" aria-label="At the bench">
            <span class="text-mute">At the bench:</span>
            @for (name of people(); track name) {
              <button
                pmButton="small"
                [attr.aria-pressed]="isHere(name)"
                (click)="evening.togglePerson(name)"
              >
                {{ isHere(name) ? '✓ ' : '' }}{{ name }}
              </button>
            }
          </div>
        }
        <div class="flex flex-wrap gap-2" role="group" aria-label="The evening">
          <button pmButton (click)="did(evening.fromNow())">Late? Plan on from now</button>
          <button pmButton (click)="did(evening.stop())">Stop for tonight</button>
          <button pmButton [disabled]="!evening.hasLog()" (click)="evening.takeBack()">
            Take back what was last
          </button>
        </div>
      </div>
    </section>
  `,
})
export class MorePanel {
  protected readonly evening = inject(Evening);
  protected readonly cup = inject(CupInHand);
  private readonly logbook = inject(Logbook);
  private readonly store = inject(MusterStore);
  readonly shut = output<void>();
  protected readonly fields = FIELDS;
  protected readonly more = signal(30);
  protected readonly took = signal(20);
  protected readonly people = computed(() => this.store.muster()?.bench.people.map((p) => p.name) ?? []);
  protected readonly isHere = (name: string): boolean => this.logbook.people().includes(name);
  /** what goes into the jar; null: as reckoned */
  protected readonly jarMl = signal<number | null>(null);
  protected readonly isForNextTime = signal(false);

  /** What was pressed is done with: the run in hand comes back to the eye. */
  protected async did(deed: Promise<void>): Promise<void> {
    await deed;
    this.shut.emit();
  }
}
