import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  Injector,
  signal,
} from '@angular/core';
import { NavigationEnd, Router, RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { filter } from 'rxjs';
import { provideIcons, NgIcon } from '@ng-icons/core';
import { lucideMoon, lucideRedo2, lucideSearch, lucideSun, lucideUndo2 } from '@ng-icons/lucide';
import { Concerns } from './data/concerns';
import { ALARMS_ON, Database } from './data/database';
import { Keeping } from './data/keeping';
import { Logbook } from './data/logbook';
import { MusterStore } from './data/musterStore';
import { Notices } from './data/notices';
import { Planner } from './data/planner';
import { Finder } from './find/finder';
import { many } from './ui/words';
import { VIEWS } from './views';
import { Button } from './ui/button';

type Theme = 'night' | 'day';

@Component({
  selector: 'pm-root',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, RouterOutlet, RouterLink, RouterLinkActive, NgIcon],
  viewProviders: [provideIcons({ lucideMoon, lucideRedo2, lucideSearch, lucideSun, lucideUndo2 })],
  host: { '(document:keydown)': 'onKey($event)', '(window:beforeunload)': 'onLeave($event)' },
  template: `
    <a
      class="no-print sr-only rounded bg-lamp px-4 py-2 text-lamp-ink focus:not-sr-only focus:absolute focus:z-50"
      href="#main"
      (click)="skip($event)"
      >Skip to the view</a
    >
    <header class="no-print flex flex-wrap items-center gap-x-1 border-b border-line bg-board px-3">
      <nav aria-label="Views" class="flex max-w-full gap-x-1 overflow-x-auto md:flex-wrap">
        @for (view of hasMuster() ? views : []; track view.path) {
          <a
            class="border-b-4 border-transparent px-2 pt-3 pb-2 font-title text-[1.05rem] font-semibold whitespace-nowrap text-mute"
            [routerLink]="view.path"
            routerLinkActive="!border-lamp !text-ink"
            ariaCurrentWhenActive="page"
            >{{ view.name }}</a
          >
        }
      </nav>
      <div
        class="flex min-w-0 grow items-center justify-end gap-x-1 overflow-x-clip max-md:w-full md:min-w-[28rem] md:basis-0"
      >
        @if (concerns.counted().length; as n) {
          <a
            class="flex min-h-11 min-w-6 shrink-0 items-center px-1 text-[0.95rem] font-semibold whitespace-nowrap text-shut underline underline-offset-4 md:px-2"
            routerLink="/findings"
            data-testid="concerns"
            [attr.aria-label]="words(n, 'thing') + ' to look at'"
            title="What the checks have found"
            >{{ n }}<span class="max-md:sr-only">&nbsp;to look at</span></a
          >
        }
        <a
          class="flex min-h-11 min-w-11 shrink-[999] items-center px-1 text-[0.9rem] max-md:grow md:max-w-40 md:px-1.5 text-mute underline decoration-line underline-offset-4"
          routerLink="/musters"
          [title]="'The muster in hand: ' + (store.muster()?.name ?? '') + '. All musters'"
          ><span class="truncate">{{ store.muster()?.name }}</span></a
        >
        <span
          class="shrink-0 whitespace-nowrap px-1 text-[0.9rem] text-mute"
          role="status"
          aria-live="polite"
          data-testid="plan-word"
          [attr.data-ended]="planner.ended()"
          >{{ planWord() }}</span
        >
        <span
          class="shrink-0 whitespace-nowrap px-1 text-[0.9rem] text-mute"
          [class.max-md:sr-only]="keeping.unwritten() === 0"
          data-testid="keeping"
          >{{ keeping.unwritten() > 0 ? 'keeping…' : hasMuster() ? 'kept' : '' }}</span
        >
        @if (hasMuster()) {
          <button
            pmButton="small"
            (click)="finder.open()"
            aria-label="Find anything (Ctrl K)"
            title="Find anything: Ctrl K"
          >
            <ng-icon name="lucideSearch" aria-hidden="true" />
          </button>
        }
        <button
          pmButton="small"
          [disabled]="!store.undoLabel()"
          (click)="store.undo()"
          [attr.aria-label]="store.undoLabel() ? 'Undo: ' + store.undoLabel() : 'Nothing to undo'"
          [title]="store.undoLabel() ? 'Undo: ' + store.undoLabel() : 'Nothing to undo'"
        >
          <ng-icon name="lucideUndo2" aria-hidden="true" />
        </button>
        <button
          pmButton="small"
          [disabled]="!store.redoLabel()"
          (click)="store.redo()"
          [attr.aria-label]="store.redoLabel() ? 'Redo: ' + store.redoLabel() : 'Nothing to redo'"
          [title]="store.redoLabel() ? 'Redo: ' + store.redoLabel() : 'Nothing to redo'"
        >
          <ng-icon name="lucideRedo2" aria-hidden="true" />
        </button>
        <button
          pmButton="small"
          (click)="turnTheme()"
          [attr.aria-label]="theme() === 'night' ? 'Daylight theme' : 'Lamp-lit theme'"
          [title]="theme() === 'night' ? 'Daylight theme' : 'Lamp-lit theme'"
        >
          <ng-icon [name]="theme() === 'night' ? 'lucideSun' : 'lucideMoon'" aria-hidden="true" />
        </button>
      </div>
    </header>
    @for (trouble of troubles(); track trouble) {
      <p class="no-print border-b-2 border-shut bg-board px-5 py-3" role="alert">
        <strong class="text-shut">Trouble.</strong> {{ trouble }}
      </p>
    }
    <main id="main" tabindex="-1" class="outline-none">
      @if (isReady()) {
        <router-outlet />
      } @else {
        <p class="p-6 text-mute">Reading what this browser keeps…</p>
      }
    </main>
    @if (notices.current(); as notice) {
      <div
        class="no-print fixed bottom-24 left-1/2 z-40 flex w-max max-w-[min(94vw,44rem)] -translate-x-1/2 items-center gap-3 rounded-lg border border-lamp bg-raised px-4 py-2.5 shadow-lg md:right-5 md:bottom-5 md:left-auto md:translate-x-0 md:px-5"
        role="status"
      >
        <span>{{ notice.text }}</span>
        @if (notice.action; as action) {
          <button
            pmButton="small lamp"
            class="shrink-0 whitespace-nowrap"
            (click)="action.run(); notices.dismiss()"
          >
            {{ action.word }}
          </button>
        }
        <button pmButton="small" class="shrink-0 whitespace-nowrap" (click)="notices.dismiss()">Close</button>
      </div>
    }
  `,
})
export class App {
  protected readonly store = inject(MusterStore);
  protected readonly notices = inject(Notices);
  protected readonly keeping = inject(Keeping);
  private readonly logbook = inject(Logbook);
  protected readonly concerns = inject(Concerns);
  protected readonly finder = inject(Finder);
  private readonly router = inject(Router);
  protected readonly words = many;
  protected readonly planner = inject(Planner);
  private readonly database = inject(Database);

  protected readonly views = VIEWS.filter((v) => v.isMain);
  protected readonly theme = signal<Theme>('night');
  protected readonly isReady = this.store.isRead.asReadonly();
  protected readonly hasMuster = computed(() => this.store.muster() !== null);

  /** What could not be read or written, in every view until it is well again. */
  protected readonly troubles = computed(() =>
    [this.keeping.trouble(), this.store.trouble(), this.logbook.trouble()].filter((t) => t !== null),
  );

  protected readonly planWord = computed(() => {
    switch (this.planner.state()) {
      case 'planning':
        return `planning, ${Math.round(this.planner.share() * 100)} %`;
      case 'planned':
        return 'planned';
      case 'stopped':
        return 'planning stopped';
      case 'impossible':
        return 'no plan is possible';
      case 'faulty':
        return 'not planned';
      case 'failed':
        return 'no plan found';
      case 'waiting':
        return '';
    }
  });

  constructor() {
    void this.database
      .setting('theme')
      .then((kept) => this.theme.set(kept === 'day' ? 'day' : 'night'))
      .catch(() => undefined);
    effect(() => (document.documentElement.dataset['theme'] = this.theme()));
    // Alarms ring wherever one is; what they need is fetched where somebody has switched them on.
    const injector = inject(Injector);
    void this.database
      .setting(ALARMS_ON)
      .then(async (kept) => {
        if (kept === 'yes') injector.get((await import('./tonight/benchAlarms')).BenchAlarms);
      })
      .catch(() => undefined);
    // Where the row of views scrolls, the one in view is in sight.
    this.router.events
      .pipe(
        filter((e) => e instanceof NavigationEnd),
        takeUntilDestroyed(),
      )
      .subscribe(() =>
        setTimeout(() =>
          document
            .querySelector('nav [aria-current="page"]')
            ?.scrollIntoView({ inline: 'nearest', block: 'nearest' }),
        ),
      );
  }

  protected turnTheme(): void {
    this.theme.update((t) => (t === 'night' ? 'day' : 'night'));
    // Not being able to keep a preference loses nothing of the user's work.
    this.database.keepSetting('theme', this.theme()).catch(() => undefined);
  }

  /** Leaving while something is unwritten asks. */
  protected onLeave(event: BeforeUnloadEvent): void {
    if (this.keeping.unwritten() > 0) event.preventDefault();
  }

  protected skip(event: Event): void {
    event.preventDefault();
    document.getElementById('main')?.focus();
  }

  /** Ctrl or Cmd with Z and Y, except where a field has an undo of its own; Ctrl with K, / and ? from anywhere else. */
  protected onKey(event: KeyboardEvent): void {
    const key = event.key.toLowerCase();
    const isHeld = (event.ctrlKey || event.metaKey) && !event.altKey;
    const isTyping = event.target instanceof HTMLElement && event.target.closest('input, textarea, select');
    if ((isHeld && key === 'k') || (key === '/' && !isHeld && !isTyping)) {
      event.preventDefault();
      if (this.hasMuster()) void this.finder.open();
      return;
    }
    if (key === '?' && !isHeld && !isTyping) return void this.router.navigateByUrl('/help');
    if (!isHeld || isTyping) return;
    if (key === 'z' && !event.shiftKey) this.store.undo();
    else if (key === 'y' || (key === 'z' && event.shiftKey)) this.store.redo();
    else return;
    event.preventDefault();
  }
}
