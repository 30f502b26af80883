import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import {
  AIRBRUSH_ROLES,
  SIZE_CLASSES,
  withBench,
  type AirbrushRole,
  type Bench,
  type SizeClass,
} from '#core/muster';
import { NEW_ID } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { CheckField } from '../ui/checkField';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { FIELDS } from '../ui/fields';
import { ListEditor, ListRow } from '../ui/listEditor';
import { NumberField } from '../ui/numberField';
import { TextField } from '../ui/textField';
import { Card } from '../ui/card';

type Airbrush = NonNullable<Bench['moreAirbrushes']>[number];

const ROLES: Readonly<Record<AirbrushRole, string>> = {
  any: 'anything',
  primer: 'primers and lacquers',
  colour: 'colours and inks',
  metal: 'metals',
  varnish: 'varnish and chipping medium',
};
const SIZES: Readonly<Record<SizeClass, string>> = {
  figure: 'figures on foot',
  mounted: 'mounted figures',
  small: 'small craft and parts',
  craft: 'craft',
  large: 'large craft',
  base: 'bases',
};

/** What else stands on the bench: more airbrushes, a booth, handles, a drying cabinet. */
@Component({
  selector: 'pm-tools-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Card, CheckField, ChoiceField, ListEditor, ListRow, NumberField, TextField],
  template: `
    <section pmCard aria-labelledby="more-tools">
      <h2 id="more-tools" class="mb-3 text-[1.25rem]">More tools</h2>
      <pm-list-editor
        label="More airbrushes"
        [items]="bench().moreAirbrushes ?? []"
        [nameOf]="nameOf"
        outWord="Take off"
        addText="Add an airbrush"
        (taken)="removeAirbrush($event.id)"
        (added)="addAirbrush()"
      >
        <ng-template [pmRow]="bench().moreAirbrushes ?? []" let-a>
          <div class="w-full rounded-md border border-line p-3">
            <pm-text
              class="mb-2 block"
              label="Airbrush"
              [value]="a.name"
              (valueChange)="setAirbrush(a.id, { name: $event })"
            />
            <div class="grid grid-cols-2 gap-3">
              <pm-choice
                label="It is for"
                [value]="a.role"
                [choices]="roles"
                (valueChange)="setAirbrush(a.id, { role: role($event) })"
              />
              <pm-number
                label="Nozzle"
                unit="mm"
                [of]="fields.airbrush.nozzleMm"
                [value]="a.nozzleMm ?? null"
                (valueChange)="setAirbrush(a.id, { nozzleMm: $event ?? undefined })"
              />
              <pm-number
                label="Load when clean"
                unit="min"
                [of]="fields.airbrush.loadMinutes"
                [value]="a.loadMinutes"
                (valueChange)="setAirbrush(a.id, { loadMinutes: $event! })"
              />
              <pm-number
                label="Change of colour"
                unit="min"
                [of]="fields.airbrush.changeMinutes"
                [value]="a.changeMinutes"
                (valueChange)="setAirbrush(a.id, { changeMinutes: $event! })"
              />
              <pm-number
                label="Full clean"
                unit="min"
                [of]="fields.airbrush.cleanMinutes"
                [value]="a.cleanMinutes"
                (valueChange)="setAirbrush(a.id, { cleanMinutes: $event! })"
              />
              <pm-number
                label="May stand loaded"
                unit="min"
                [of]="fields.airbrush.idleMinutes"
                [value]="a.idleMinutes"
                (valueChange)="setAirbrush(a.id, { idleMinutes: $event! })"
              />
            </div>
          </div>
        </ng-template>
      </pm-list-editor>
      <p class="mt-2 text-[0.9rem] text-mute">
        A layer that names a nozzle goes to the airbrush that has it; any other to the one that is for its
        kind of paint, else to the first.
      </p>

      <div class="mt-4 grid grid-cols-2 gap-3">
        <pm-number
          label="The booth has room for"
          unit="at a time"
          [of]="fields.bench.boothPlaces"
          [value]="bench().boothPlaces ?? null"
          (valueChange)="set({ boothPlaces: $event ?? undefined }, 'booth')"
        />
      </div>

      <h3 class="mt-4 mb-2 text-[1.05rem]">Handles and clips</h3>
      <div class="grid grid-cols-2 gap-3 md:grid-cols-3">
        @for (s of sizes; track s.size) {
          <pm-number
            [label]="'For ' + s.text"
            [of]="fields.handles"
            [value]="bench().handles?.[s.size] ?? null"
            (valueChange)="setHandles(s.size, $event)"
          />
        }
      </div>
      <p class="mt-2 text-[0.9rem] text-mute">Without a number there are enough.</p>

      <div class="mt-4">
        <pm-check
          label="There is a drying cabinet"
          [value]="bench().cabinet !== undefined"
          (valueChange)="setCabinet($event)"
        />
        @if (bench().cabinet; as c) {
          <div class="mt-2 grid grid-cols-3 gap-3">
            <pm-number
              label="Places in it"
              [of]="fields.cabinet.places"
              [value]="c.places"
              (valueChange)="
                set(
                  { cabinet: { places: $event!, celsius: c.celsius, humidityPercent: c.humidityPercent } },
                  'cabinet'
                )
              "
            />
            <pm-number
              label="Its air"
              unit="°C"
              [of]="fields.cabinet.celsius"
              [value]="c.celsius"
              (valueChange)="
                set(
                  { cabinet: { places: c.places, celsius: $event!, humidityPercent: c.humidityPercent } },
                  'cabinet'
                )
              "
            />
            <pm-number
              label="and its humidity"
              unit="%"
              [of]="fields.cabinet.humidityPercent"
              [value]="c.humidityPercent"
              (valueChange)="
                set(
                  { cabinet: { places: c.places, celsius: c.celsius, humidityPercent: $event! } },
                  'cabinet'
                )
              "
            />
          </div>
          <p class="mt-2 text-[0.9rem] text-mute">
            Layers marked “dries in the cabinet” stand in it until the next may go on. Solvent fumes and heat
            do not go together: let them flash off in the open first, and keep to the labels; resin and wax
            parts warp in the warm.
          </p>
        }
      </div>
    </section>
  `,
})
export class ToolsPanel {
  protected readonly nameOf = (a: { readonly name: string }): string => `the airbrush ${a.name}`;
  protected readonly fields = FIELDS;
  private readonly store = inject(MusterStore);
  private readonly newId = inject(NEW_ID);
  protected readonly bench = computed(() => this.store.muster()!.bench);
  protected readonly roles: readonly Choice[] = AIRBRUSH_ROLES.map((r) => ({ value: r, text: ROLES[r] }));
  protected readonly sizes = SIZE_CLASSES.map((size) => ({ size, text: SIZES[size] }));

  protected role(value: string): AirbrushRole {
    return AIRBRUSH_ROLES.find((r) => r === value) ?? 'any';
  }

  protected set(part: Partial<Bench>, what: string): void {
    this.store.change(`Bench: ${what}`, (m) => withBench(m, { ...m.bench, ...part }));
  }

  protected setAirbrush(id: string, part: Partial<Airbrush>): void {
    this.setAirbrushes((list) => list.map((a) => (a.id === id ? { ...a, ...part } : a)));
  }

  protected addAirbrush(): void {
    const { loadMinutes, changeMinutes, cleanMinutes, idleMinutes } = this.bench().airbrush;
    this.setAirbrushes((list) => [
      ...list,
      {
        id: this.newId(),
        name: `Airbrush ${list.length + 2}`,
        role: 'primer',
        loadMinutes,
        changeMinutes,
        cleanMinutes,
        idleMinutes,
      },
    ]);
  }

  protected removeAirbrush(id: string): void {
    this.setAirbrushes((list) => list.filter((a) => a.id !== id));
  }

  protected setHandles(size: SizeClass, count: number | null): void {
    const others = Object.entries(this.bench().handles ?? {}).filter(([s]) => s !== size);
    const handles = Object.fromEntries([...others, ...(count === null ? [] : [[size, count]])]);
    this.set({ handles }, 'handles');
  }

  protected setCabinet(has: boolean): void {
    const cabinet = has ? { places: 12, celsius: 38, humidityPercent: 25 } : undefined;
    this.set({ cabinet }, 'drying cabinet');
  }

  private setAirbrushes(next: (list: readonly Airbrush[]) => Airbrush[]): void {
    this.store.change('Bench: airbrushes', (m) =>
      withBench(m, { ...m.bench, moreAirbrushes: next(m.bench.moreAirbrushes ?? []) }),
    );
  }
}
