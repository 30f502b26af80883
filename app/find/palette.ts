import { ActiveDescendantKeyManager, type Highlightable } from '@angular/cdk/a11y';
import { DialogRef } from '@angular/cdk/dialog';
import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  Directive,
  ElementRef,
  inject,
  Injector,
  input,
  output,
  signal,
  viewChildren,
} from '@angular/core';
import { Router } from '@angular/router';
import { find, thingsOf, type Thing, type ThingKind } from '#core/find';
import { instantOf, wallTime, withExtraSession } from '#core/muster';
import { NEW_ID, NOW } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { Notices } from '../data/notices';
import { Planner } from '../data/planner';
import { VIEWS } from '../views';

const KINDS: Readonly<Record<ThingKind | 'view', string>> = {
  unit: 'unit',
  piece: 'piece',
  recipe: 'recipe',
  layer: 'layer',
  product: 'product',
  evening: 'evening',
  do: 'do',
  view: 'view',
};
const MOST = 12;

interface Answer {
  readonly kind: ThingKind | 'view';
  readonly name: string;
  readonly detail: string;
  readonly run: () => void;
}

/** One answer of the finder, which the arrow keys reach while the field keeps the focus. */
@Directive({
  selector: '[pmAnswer]',
  host: {
    role: 'option',
    '[attr.id]': 'id()',
    '[attr.aria-selected]': 'isActive()',
    '[class.bg-glow]': 'isActive()',
    '(click)': 'taken.emit(answer())',
  },
})
export class AnswerOption implements Highlightable {
  readonly answer = input.required<Answer>({ alias: 'pmAnswer' });
  readonly id = input.required<string>();
  readonly taken = output<Answer>();
  readonly isActive = signal(false);
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef);

  setActiveStyles(): void {
    this.isActive.set(true);
    this.element.nativeElement.scrollIntoView({ block: 'nearest' });
  }
  setInactiveStyles(): void {
    this.isActive.set(false);
  }
}

/** Goes anywhere and does things by a few words. */
@Component({
  selector: 'pm-palette',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [AnswerOption],
  template: `
    <div
      class="flex max-h-[80vh] w-[min(38rem,94vw)] flex-col overflow-hidden rounded-xl border border-lamp bg-raised shadow-2xl"
    >
      <label class="sr-only" for="finder">Find, or do</label>
      <input
        id="finder"
        class="w-full bg-transparent px-5 py-4 text-[1.2rem] text-ink outline-none"
        autocomplete="off"
        placeholder="A piece, a layer, a paint, a day, “extra session on Friday”"
        role="combobox"
        aria-controls="answers"
        [attr.aria-expanded]="answers().length > 0"
        [attr.aria-activedescendant]="activeId()"
        [value]="words()"
        (input)="words.set($any($event.target).value)"
        (keydown)="onKey($event)"
      />
      <ul id="answers" class="overflow-auto border-t border-line" role="listbox" aria-label="Answers">
        @for (a of answers(); track $index; let k = $index) {
          <li
            [pmAnswer]="a"
            [id]="'answer-' + k"
            class="flex min-h-11 cursor-pointer items-baseline gap-3 px-5 py-2"
            (taken)="take(a)"
          >
            <span class="w-16 shrink-0 text-[0.85rem] text-mute">{{ kinds[a.kind] }}</span>
            <strong class="min-w-0 truncate">{{ a.name }}</strong>
            <span class="min-w-0 truncate text-[0.9rem] text-mute">{{ a.detail }}</span>
          </li>
        }
      </ul>
      @if (words().trim() !== '' && answers().length === 0) {
        <p class="px-5 py-4 text-mute" role="status">Nothing here is called so.</p>
      }
    </div>
  `,
})
export class Palette {
  private readonly dialog = inject(DialogRef);
  private readonly store = inject(MusterStore);
  private readonly planner = inject(Planner);
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);
  private readonly now = inject(NOW);
  private readonly newId = inject(NEW_ID);
  protected readonly kinds = KINDS;
  protected readonly words = signal('');
  private readonly options = viewChildren(AnswerOption);
  private readonly keys = new ActiveDescendantKeyManager(this.options, inject(Injector)).withWrap();
  protected readonly activeId = signal<string | null>(null);

  private readonly things = computed(() => {
    const muster = this.store.muster();
    return muster ? thingsOf(muster) : [];
  });
  protected readonly answers = computed((): readonly Answer[] => {
    const asked = this.words().trim().toLowerCase();
    const muster = this.store.muster();
    const own = this.ownAnswers().filter((a) => a.name.toLowerCase().includes(asked));
    if (asked === '' || !muster) return own;
    const today = wallTime(muster.bench.timeZone, instantOf(this.now())).slice(0, 10);
    const found = find(asked, this.things(), muster, this.planner.plan(), today, MOST).map((t) =>
      this.answerOf(t),
    );
    return [...found.filter((a) => a.kind === 'do'), ...own, ...found.filter((a) => a.kind !== 'do')].slice(
      0,
      MOST,
    );
  });

  constructor() {
    afterRenderEffect(() => {
      if (this.options().length > 0) this.keys.setFirstItemActive();
      this.activeId.set(this.keys.activeItem?.id() ?? null);
    });
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.key === 'Enter') {
      event.preventDefault();
      const answer = this.keys.activeItem?.answer();
      if (answer) this.take(answer);
      return;
    }
    if (event.key === 'Home' || event.key === 'End') return;
    this.keys.onKeydown(event);
    this.activeId.set(this.keys.activeItem?.id() ?? null);
  }

  protected take(answer: Answer): void {
    this.dialog.close();
    answer.run();
  }

  private ownAnswers(): Answer[] {
    const views = VIEWS.map((v): Answer => ({
      kind: 'view',
      name: v.name,
      detail: v.about,
      run: () => void this.router.navigateByUrl(v.path),
    }));
    const undo = this.store.undoLabel();
    const redo = this.store.redoLabel();
    return [
      ...(undo === null
        ? []
        : [{ kind: 'do' as const, name: `Undo: ${undo}`, detail: 'Ctrl Z', run: () => this.store.undo() }]),
      ...(redo === null
        ? []
        : [{ kind: 'do' as const, name: `Redo: ${redo}`, detail: 'Ctrl Y', run: () => this.store.redo() }]),
      {
        kind: 'do',
        name: 'Many units at once',
        detail: 'type or paste a list',
        run: () => void this.router.navigate(['/muster'], { queryParams: { many: '' } }),
      },
      ...views,
    ];
  }

  private answerOf(thing: Thing): Answer {
    return { kind: thing.kind, name: thing.name, detail: thing.detail, run: () => this.run(thing) };
  }

  private run({ link, deed, name }: Thing): void {
    if (link) void this.router.navigate([...link.path], { queryParams: link.query ?? {} });
    if (!deed) return;
    const isTaken = this.store.change(name, (m) =>
      withExtraSession(m, deed.date, { from: deed.from, to: deed.to }, this.newId),
    );
    if (isTaken)
      this.notices.tell(`${name}: the plan is made anew.`, { word: 'Undo', run: () => this.store.undo() });
  }
}
