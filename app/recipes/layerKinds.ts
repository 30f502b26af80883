import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  AIDS,
  FAMILIES,
  familyOf,
  FILMS,
  METHODS,
  REACH,
  REACHES,
  sprayGuide,
  type Aid,
  type Film,
  type Reach,
  MASKING_IDS,
  maskingFacts,
  type MaskingId,
} from '#core/materials';
import { SHEENS, TASKS, type Layer, type Recipe, type Sheen, type Substitute, type Task } from '#core/muster';
import { takenBackOf } from '#core/recipe';
import { CheckField } from '../ui/checkField';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { FIELDS } from '../ui/fields';
import { LEVELS } from '../ui/levels';
import { NumberField } from '../ui/numberField';
import { TextField } from '../ui/textField';
import { TonesEditor } from './tonesEditor';
import { Button } from '../ui/button';

const TASK_WORDS: Readonly<Record<Task, string>> = {
  coat: 'a coat',
  lift: 'lifting chips',
  wipe: 'wiping a wash back',
  mask: 'masking',
  putty: 'masking with putty',
  unmask: 'unmasking',
  glue: 'gluing',
  bare: 'baring a joint',
  decal: 'decals',
  softener: 'softening solution',
  rinse: 'rinsing with water',
  polish: 'polishing',
  spatter: 'flicking or spattering',
};
const AID_WORDS: Readonly<Record<Aid, string>> = {
  none: 'nothing but patience',
  'moving-air': 'cool moving air',
  cabinet: 'drying cabinet',
  heat: 'heat',
};
const NONE: Choice = { value: '', text: 'not said' };

/** What a layer can be besides family, method and minutes. */
@Component({
  selector: 'pm-layer-kinds',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, CheckField, ChoiceField, NumberField, TextField, TonesEditor],
  template: `
    @let l = layer();
    <div class="flex flex-col gap-3">
      <div class="grid grid-cols-2 gap-3">
        <pm-choice
          label="The rules take it for"
          [value]="l.task ?? ''"
          [choices]="tasks"
          (valueChange)="set({ task: task($event) }, 'what it is')"
        />
        @if (l.task === 'mask') {
          <pm-choice
            label="Masked with"
            [value]="l.masking ?? 'tape'"
            [choices]="maskings"
            (valueChange)="set({ masking: masking($event) }, 'what it is masked with')"
          />
        }
        <pm-choice
          label="Dries to"
          [value]="l.sheen ?? ''"
          [choices]="sheens"
          (valueChange)="set({ sheen: sheen($event) }, 'sheen')"
        />
        <pm-choice
          label="Film"
          [value]="l.film ?? 'normal'"
          [choices]="films"
          (valueChange)="set({ film: film($event) }, 'film')"
        />
        <pm-choice
          label="Covers"
          [value]="l.reach ?? 'all'"
          [choices]="reaches"
          (valueChange)="set({ reach: reach($event) }, 'how much it covers')"
        />
        <pm-choice
          label="Drying aid"
          [value]="l.aid ?? 'none'"
          [choices]="aids"
          (valueChange)="set({ aid: aid($event) }, 'drying aid')"
        />
      </div>
      <pm-text
        label="Put on with (“No. 2 round”, “torn sponge”)"
        [optional]="true"
        [value]="l.applicator ?? ''"
        (valueChange)="set({ applicator: $event || undefined }, 'what it is put on with')"
      />
      <pm-check
        label="Done for the first time: tried on scrap before the first piece, and planned a quarter longer"
        [value]="l.isFirstTime ?? false"
        (valueChange)="set({ isFirstTime: $event || undefined }, 'first time')"
      />
      <pm-check
        label="A picture is to be taken of it"
        [value]="l.isPictured ?? false"
        (valueChange)="set({ isPictured: $event || undefined }, 'picture')"
      />
      <fieldset class="grid grid-cols-2 gap-3 rounded-md border border-line p-3">
        <legend class="px-1 font-semibold">Taken back</legend>
        <pm-text
          label="How (“damp cloth”)"
          [optional]="true"
          [value]="l.takenBack?.by ?? ''"
          (valueChange)="setTakenBack($event, l.takenBack?.until ?? null)"
        />
        <pm-choice
          label="No more from"
          [value]="l.takenBack?.until ?? ''"
          [choices]="noMoreFrom()"
          (valueChange)="setTakenBack(l.takenBack?.by ?? usualBack()?.by ?? 'by hand', $event || null)"
        />
        @if (!l.takenBack && usualBack(); as usual) {
          <p class="col-span-2 text-[0.9rem] text-mute">
            Usually: {{ usual.by }}{{ usual.until ? ', until “' + usual.until.name + '”' : '' }}.
          </p>
        }
      </fieldset>
      <fieldset class="grid grid-cols-2 gap-3 rounded-md border border-line p-3">
        <legend class="px-1 font-semibold">Again until it looks right</legend>
        <pm-number
          label="Passes expected"
          [of]="fields.passes.expected"
          [value]="l.passes?.expected ?? 1"
          (valueChange)="setPasses($event!, l.passes?.waitMinutes ?? l.dryMinutes)"
        />
        <pm-number
          label="Wait between"
          unit="min"
          [of]="fields.passes.waitMinutes"
          [value]="l.passes?.waitMinutes ?? 0"
          (valueChange)="setPasses(l.passes?.expected ?? 1, $event!)"
        />
      </fieldset>
      <fieldset class="grid grid-cols-2 gap-3 rounded-md border border-line p-3">
        <legend class="px-1 font-semibold">Face by face</legend>
        <pm-number
          label="Faces"
          [of]="fields.faces.count"
          [value]="l.faces?.count ?? 1"
          (valueChange)="setFaces($event!, l.faces?.waitMinutes ?? l.dryMinutes)"
        />
        <pm-number
          label="Wait before a turn"
          unit="min"
          [of]="fields.faces.waitMinutes"
          [value]="l.faces?.waitMinutes ?? 0"
          (valueChange)="setFaces(l.faces?.count ?? 1, $event!)"
        />
      </fieldset>
      <pm-choice
        label="And the air around it"
        [value]="l.air ?? ''"
        [choices]="airs"
        (valueChange)="set({ air: air($event) }, 'air')"
      />
      <pm-check
        label="Only outdoors, in daylight and fit air"
        [value]="l.isOutdoors ?? false"
        (valueChange)="set({ isOutdoors: $event || undefined }, 'outdoors')"
      />
      <pm-check
        label="Dries in the cabinet, where the bench has one"
        [value]="l.inCabinet ?? false"
        (valueChange)="set({ inCabinet: $event || undefined }, 'cabinet')"
      />
      <div class="grid grid-cols-2 gap-3">
        <pm-number
          label="Nozzle"
          unit="mm"
          [of]="fields.layer.nozzleMm"
          [value]="l.nozzleMm ?? null"
          (valueChange)="set({ nozzleMm: $event ?? undefined }, 'nozzle')"
        />
        <pm-number
          label="Pressure"
          [unit]="pressure()"
          [of]="fields.layer.pressureBar"
          [value]="l.pressureBar ?? null"
          (valueChange)="set({ pressureBar: $event ?? undefined }, 'pressure')"
        />
        <pm-number
          label="Depth of all pours together"
          unit="mm"
          [of]="fields.layer.depthMm"
          [value]="l.depthMm ?? null"
          (valueChange)="set({ depthMm: $event ?? undefined }, 'depth')"
        />
        <pm-number
          label="Own figure of paint, a piece"
          unit="ml"
          [of]="fields.layer.millilitres"
          [value]="l.millilitres ?? null"
          (valueChange)="set({ millilitres: $event ?? undefined }, 'own amount')"
        />
        <pm-number
          label="Kept for touching up, a piece"
          unit="ml"
          [of]="fields.layer.reserveMl"
          [value]="l.reserveMl ?? null"
          (valueChange)="set({ reserveMl: $event || undefined }, 'kept for touching up')"
        />
      </div>
      <div class="grid grid-cols-2 gap-3">
        <pm-choice
          label="Completes finish level"
          [value]="l.level ? '' + l.level : ''"
          [choices]="levels"
          (valueChange)="set({ level: $event ? +$event : undefined }, 'finish level')"
        />
        <pm-choice
          label="Not to be judged before"
          [value]="l.judgeFrom ?? ''"
          [choices]="above()"
          (valueChange)="set({ judgeFrom: $event || undefined }, 'when to judge')"
        />
      </div>
      <pm-text
        label="Judged how (“at arm’s length, against the left door”)"
        [optional]="true"
        [value]="l.judgeBy ?? ''"
        (valueChange)="set({ judgeBy: $event || undefined }, 'how to judge')"
      />
      <pm-check
        label="Optional: a piece may go without it, or have a trace of it, or much"
        [value]="l.isOptional ?? false"
        (valueChange)="set({ isOptional: $event || undefined }, 'optional')"
      />
      <pm-tones-editor [layer]="l" (changed)="changed.emit($event)" />
      <pm-check
        label="Other pieces wait here for the pilot’s verdict"
        [value]="l.isPiloted ?? false"
        (valueChange)="set({ isPiloted: $event || undefined }, 'pilot')"
      />
      <fieldset class="rounded-md border border-line p-3">
        <legend class="px-1 font-semibold">Substitute</legend>
        @if (l.substitute; as s) {
          <div class="flex flex-col gap-3">
            <pm-check
              label="This recipe takes the substitute"
              [value]="l.usesSubstitute ?? false"
              (valueChange)="set({ usesSubstitute: $event || undefined }, 'substitute')"
            />
            <pm-text label="Called" [value]="s.name" (valueChange)="setSubstitute({ name: $event })" />
            <div class="grid grid-cols-2 gap-3">
              <pm-choice
                label="Product family"
                [value]="s.family"
                [choices]="families"
                (valueChange)="setSubstitute({ family: $any($event) })"
              />
              <pm-choice
                label="Put on by"
                [value]="s.method"
                [choices]="methods"
                (valueChange)="setSubstitute({ method: $any($event) })"
              />
              <pm-number
                label="Coats"
                [of]="fields.substitute.coats"
                [value]="s.coats"
                (valueChange)="setSubstitute({ coats: $event! })"
              />
              <pm-number
                label="Hands, a piece and coat"
                unit="min"
                [of]="fields.substitute.minutes"
                [value]="s.minutes"
                (valueChange)="setSubstitute({ minutes: $event! })"
              />
              <pm-number
                label="Dry for the next layer"
                unit="min"
                [of]="fields.substitute.dryMinutes"
                [value]="s.dryMinutes"
                (valueChange)="setSubstitute({ dryMinutes: $event! })"
              />
            </div>
            <button
              pmButton="small"
              class="self-start"
              (click)="set({ substitute: undefined, usesSubstitute: undefined }, 'substitute taken off')"
            >
              Take the substitute off
            </button>
          </div>
        } @else {
          <button pmButton="small" (click)="addSubstitute()">Another way to do it</button>
        }
      </fieldset>
    </div>
  `,
})
export class LayerKinds {
  protected readonly fields = FIELDS;
  readonly layer = input.required<Layer>();
  readonly recipe = input.required<Recipe>();
  readonly changed = output<{ part: Partial<Layer>; what: string }>();

  protected readonly tasks: readonly Choice[] = [
    NONE,
    ...TASKS.map((t) => ({ value: t, text: TASK_WORDS[t] })),
  ];
  protected readonly sheens: readonly Choice[] = [NONE, ...SHEENS.map((s) => ({ value: s, text: s }))];
  protected readonly reaches: readonly Choice[] = REACHES.map((r) => ({ value: r, text: REACH[r].name }));
  protected readonly films: readonly Choice[] = FILMS.map((f) => ({ value: f, text: f }));
  protected readonly aids: readonly Choice[] = AIDS.map((a) => ({ value: a, text: AID_WORDS[a] }));
  protected readonly airs: readonly Choice[] = [
    { value: '', text: 'does not matter' },
    { value: 'contaminates', text: 'throws dust or drops on wet coats' },
    { value: 'needs-clean', text: 'needs clean air while it is wet' },
  ];
  protected readonly levels: readonly Choice[] = [{ value: '', text: 'none' }, ...LEVELS];
  protected readonly families: readonly Choice[] = [...FAMILIES.values()].map((f) => ({
    value: f.id,
    text: f.name,
  }));
  protected readonly methods: readonly Choice[] = [...METHODS.values()].map((m) => ({
    value: m.id,
    text: m.name,
  }));
  protected readonly above = computed((): readonly Choice[] => {
    const at = this.recipe().layers.findIndex((l) => l.id === this.layer().id);
    return [
      { value: '', text: 'at once' },
      ...this.recipe()
        .layers.slice(at + 1)
        .map((l) => ({ value: l.id, text: l.name })),
    ];
  });

  protected readonly maskings: readonly Choice[] = MASKING_IDS.filter((m) => m !== 'putty').map((m) => ({
    value: m,
    text: maskingFacts(m).name,
  }));
  protected readonly masking = (v: string): MaskingId | undefined => MASKING_IDS.find((m) => m === v);
  protected readonly task = (v: string): Task | undefined => TASKS.find((t) => t === v);
  protected readonly sheen = (v: string): Sheen | undefined => SHEENS.find((s) => s === v);
  protected readonly reach = (v: string): Reach | undefined => REACHES.find((r) => r === v);
  protected readonly film = (v: string): Film | undefined => FILMS.find((f) => f === v);
  protected readonly aid = (v: string): Aid | undefined => AIDS.find((a) => a === v);
  protected readonly air = (v: string): Layer['air'] =>
    v === 'contaminates' || v === 'needs-clean' ? v : undefined;

  /** The unit of the pressure, with what it comes to in the other one. */
  protected readonly pressure = computed(() => {
    const { family, pressureBar } = this.layer();
    const guide = sprayGuide(family, 'airbrush', { pressureBar })!;
    return pressureBar === undefined
      ? `bar, without ${guide.bar} (${guide.psi} psi)`
      : `bar (${guide.psi} psi)`;
  });

  protected set(part: Partial<Layer>, what: string): void {
    this.changed.emit({ part, what });
  }

  protected readonly noMoreFrom = computed((): readonly Choice[] => [
    { value: '', text: 'at any time' },
    ...this.above().slice(1),
  ]);
  /** how such a layer is taken back where nothing is said of it */
  protected readonly usualBack = computed(() => takenBackOf(this.recipe(), this.layer()));

  protected setTakenBack(by: string, until: string | null): void {
    this.set({ takenBack: by === '' ? undefined : { by, until } }, 'taking back');
  }

  protected setPasses(expected: number, waitMinutes: number): void {
    this.set({ passes: expected > 1 ? { expected, waitMinutes } : undefined }, 'passes');
  }

  protected setFaces(count: number, waitMinutes: number): void {
    this.set({ faces: count > 1 ? { count, waitMinutes } : undefined }, 'faces');
  }

  protected setSubstitute(part: Partial<Substitute>): void {
    this.set({ substitute: { ...this.layer().substitute!, ...part } }, 'substitute');
  }

  /** Brush for airbrush, acrylic for solvent. */
  protected addSubstitute(): void {
    const l = this.layer();
    const { binder, role } = familyOf(l.family);
    const isSolvent = binder === 'spirit' || binder === 'lacquer';
    const waterborne = { primer: 'primer', texture: 'paste' } as const;
    const family = !isSolvent
      ? l.family
      : l.sheen
        ? 'varnish'
        : role === 'primer' || role === 'texture'
          ? waterborne[role]
          : 'acrylic-wash';
    this.set(
      {
        substitute: {
          name: `${l.name}, ${isSolvent ? 'waterborne' : 'by brush'}`,
          family,
          method: isSolvent ? l.method : 'brush',
          coats: isSolvent ? l.coats : l.coats + 1,
          minutes: isSolvent ? l.minutes : l.minutes * 2,
          dryMinutes: familyOf(family).dryMinutes,
        },
      },
      'substitute added',
    );
  }
}
