import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { ABILITIES, originOf, withBench, type Ability, type Person } from '#core/muster';
import { NEW_ID } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { CheckField } from '../ui/checkField';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { TextField } from '../ui/textField';
import { SpanList } from './spanList';
import { Button } from '../ui/button';
import { Card } from '../ui/card';

const MAY: Readonly<Record<Ability, string>> = {
  all: 'everything',
  careful: 'brush and waterborne only: no spray, solvent or blade',
};

/** Who works at this bench: what each may do, and when each is there. */
@Component({
  selector: 'pm-people-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Card, Button, CheckField, ChoiceField, SpanList, TextField],
  template: `
    <section pmCard aria-labelledby="hands">
      <h2 id="hands" class="mb-3 text-[1.25rem]">Hands</h2>
      <ul class="flex flex-col gap-4">
        @for (p of people(); track p.id; let i = $index) {
          <li class="border-b border-line pb-3 last:border-b-0">
            <div class="flex flex-wrap items-end gap-2">
              <pm-text
                class="min-w-40 grow"
                [label]="'Person ' + (i + 1)"
                [value]="p.name"
                (valueChange)="set(p.id, { name: $event }, 'person renamed')"
              />
              <button
                pmButton="small"
                [attr.aria-label]="'Take ' + p.name + ' off the bench'"
                (click)="remove(p.id)"
              >
                Take off
              </button>
            </div>
            <details class="mt-2" [open]="people().length > 1">
              <summary class="cursor-pointer py-1 text-mute">
                {{ may(p) }} · {{ p.hours ? 'own hours' : 'every session'
                }}{{ p.away?.length ? ' · away at times' : '' }}
              </summary>
              <div class="mt-1 flex flex-col gap-3">
                <pm-choice
                  [label]="p.name + ' may do'"
                  [value]="p.may ?? 'all'"
                  [choices]="abilities"
                  (valueChange)="set(p.id, { may: ability($event) }, 'what ' + p.name + ' may do')"
                />
                <pm-check
                  [label]="p.name + ' comes at hours of their own'"
                  [value]="p.hours !== undefined"
                  (valueChange)="setOwnHours(p, $event)"
                />
                @if (p.hours; as hours) {
                  <pm-span-list
                    type="time"
                    [what]="p.name + ' is there'"
                    addText="Add hours"
                    [items]="hours"
                    [fresh]="evening"
                    (changed)="set(p.id, { hours: $event }, 'hours of ' + p.name)"
                  />
                }
                <div>
                  <h3 class="label">Away</h3>
                  <pm-span-list
                    type="date"
                    [what]="p.name + ' is away'"
                    addText="Add days away"
                    [items]="p.away ?? []"
                    [fresh]="today()"
                    (changed)="set(p.id, { away: $event }, 'days on which ' + p.name + ' is away')"
                  />
                </div>
              </div>
            </details>
          </li>
        }
      </ul>
      <button pmButton="small" class="mt-2" (click)="add()">Add a person</button>
      <p class="mt-3 text-[0.9rem] text-mute">
        Hours count while the bench is lit. Two never share one airbrush at a time. Young helpers stay with
        brush and water, and with somebody who watches.
      </p>
    </section>
  `,
})
export class PeoplePanel {
  private readonly store = inject(MusterStore);
  private readonly newId = inject(NEW_ID);
  protected readonly people = computed(() => this.store.muster()!.bench.people);
  protected readonly abilities: readonly Choice[] = ABILITIES.map((a) => ({ value: a, text: MAY[a] }));
  protected readonly evening = { weekday: 6, from: '14:00', to: '18:00' };
  protected readonly today = computed(() => {
    const { date } = originOf(this.store.muster()!);
    return { from: date, to: date };
  });

  protected may(person: Person): string {
    return person.may === 'careful' ? 'brush and waterborne only' : 'may do everything';
  }

  protected ability(value: string): Ability | undefined {
    return ABILITIES.find((a) => a === value);
  }

  protected set(id: string, part: Partial<Person>, what: string): void {
    this.change(what, (list) => list.map((p) => (p.id === id ? { ...p, ...part } : p)));
  }

  protected setOwnHours(person: Person, isOwn: boolean): void {
    const hours = isOwn ? [{ id: this.newId(), ...this.evening }] : undefined;
    this.set(person.id, { hours }, `hours of ${person.name}`);
  }

  protected add(): void {
    this.change('person added', (list) => [...list, { id: this.newId(), name: `Hands ${list.length + 1}` }]);
  }

  protected remove(id: string): void {
    this.change('person taken off', (list) => list.filter((p) => p.id !== id));
  }

  private change(what: string, next: (people: readonly Person[]) => Person[]): void {
    this.store.change(`Bench: ${what}`, (m) => withBench(m, { ...m.bench, people: next(m.bench.people) }));
  }
}
