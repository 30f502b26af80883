import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { ClockPoints } from '#core/climate';
import { writeLogCsv } from '#core/exchange';
import { familyOf } from '#core/materials';
import { instantOf, originOf, wallTime, type Layer } from '#core/muster';
import type { StepRef } from '#core/plan';
import { standing, type LogEntry } from '#core/log';
import { judged, oddsWords, recordWords } from '#core/odds';
import {
  dryingLessons,
  handsLessons,
  isTelling,
  pieceCards,
  productOf,
  recipeOf,
  withDryingLesson,
  withHandsLesson,
  withoutLessons,
  type DryingLesson,
  type HandsLesson,
  type PieceCard,
} from '#core/session';
import { NEW_ID, NOW } from '../data/environment';
import { Logbook } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Notices } from '../data/notices';
import { Planner } from '../data/planner';
import { download, fileName } from '../ui/download';
import { ENTRY_WORDS } from '../ui/entryWords';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { FileButton } from '../ui/fileButton';
import { CheckField } from '../ui/checkField';
import { SearchField } from '../ui/searchField';

/** Height of an entry, of two lines, and how many are shown at once. */
const ROW = 56;
const MOST_SHOWN = 12;
/** Cards that are drawn before all are asked for. */
const CARDS = 20;

/** What was done to each piece, and what the estimates have learned from it. */
@Component({
  selector: 'pm-log-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    CheckField,
    SearchField,
    FileButton,
    Card,
    Button,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
    CdkVirtualScrollViewport,
  ],
  templateUrl: './log.view.html',
})
export class LogView {
  private readonly store = inject(MusterStore);
  protected readonly logbook = inject(Logbook);
  private readonly notices = inject(Notices);
  private readonly newId = inject(NEW_ID);
  protected readonly search = signal('');
  protected readonly fault = signal<string | null>(null);

  private readonly planner = inject(Planner);
  private readonly zone = computed(() => this.store.muster()!.bench.timeZone);
  /** the steps that are planned now; without a plan the log is read from itself alone */
  private readonly steps = computed(() => this.planner.solved()?.steps ?? new Map<string, StepRef>());
  private readonly clocks = computed(() => this.planner.solved()?.clocks ?? new Map<string, ClockPoints>());
  private readonly holds = computed(() => new Set(standing(this.logbook.entries()).map((e) => e.id)));
  /** the entries that are looked for, the newest first */
  protected readonly found = computed(() => {
    const wanted = this.search().trim().toLowerCase();
    const all = [...this.logbook.entries()].reverse();
    return wanted === ''
      ? all
      : all.filter((e) => {
          const { at, what, where, detail } = this.row(e);
          return `${at} ${what} ${where} ${detail}`.toLowerCase().includes(wanted);
        });
  });
  private readonly now = inject(NOW);
  /** what was forecast, against what came */
  protected readonly record = computed(() => {
    const kept = judged(this.logbook.entries(), instantOf(this.now()));
    if (kept.judged.length + kept.open === 0) return null;
    return { lines: recordWords(kept), open: kept.open };
  });
  protected readonly rowHeight = ROW;
  protected readonly listHeight = computed(() => Math.min(this.found().length, MOST_SHOWN) * ROW);
  protected readonly byId = (_: number, entry: LogEntry): string => entry.id;

  /** An entry in words; asked for as it comes into sight. */
  protected row(e: LogEntry) {
    const step = 'step' in e && e.step !== undefined ? this.steps().get(e.step) : undefined;
    return {
      at: wallTime(this.zone(), e.at).replace('T', ' '),
      what: ENTRY_WORDS[e.kind],
      where: whereOf(e, step),
      picture: e.kind === 'picture' ? e.data : null,
      detail: detailOf(e, step?.layer.mixture ?? e.about?.mixture ?? ''),
      isGone: e.kind !== 'taken-back' && !this.holds().has(e.id),
    };
  }

  /** Drying by product: learned from so many looks, the relatives in its family as prior. */
  protected readonly drying = computed(() => {
    return dryingLessons(
      this.logbook.entries(),
      this.steps(),
      this.clocks(),
      originOf(this.store.muster()!),
    ).map((d) => ({
      ...d,
      use: this.useOf(d),
      // A window that shuts is scaled in the plan only: written into the recipe it could not be nominal again.
      canBeWritten: this.isUsed(
        (l) => l.family === d.family && l.window?.closesMinutes == null && productOf(l) === d.product,
      ),
      familyName: familyOf(d.family).name,
      inUse: this.isUsed(
        (l) => l.family === d.family && l.dryFrom?.source === 'learned' && productOf(l) === d.product,
      ),
    }));
  });
  protected readonly hands = computed(() =>
    handsLessons(this.logbook.entries(), this.steps()).map((h) => ({
      ...h,
      use: this.useOf(h),
      inUse: this.isUsed(
        (l, recipe) => recipe === h.recipe && l.id === h.layer && l.minutesFrom?.source === 'learned',
      ),
    })),
  );
  protected readonly hasLessons = computed(() =>
    this.isUsed((l) => l.dryFrom?.source === 'learned' || l.minutesFrom?.source === 'learned'),
  );

  protected readonly usesLessons = computed(() => this.store.muster()!.bench.usesLessons !== false);
  /** What the plan makes of a lesson, in words. */
  private useOf(lesson: { readonly low: number; readonly high: number }): string {
    if (!isTelling(lesson)) return 'not sure enough yet: nominal in the plan';
    return this.usesLessons() ? 'used in the plan' : 'not used';
  }

  protected setUsesLessons(on: boolean): void {
    this.store.change(on ? 'planned with what the bench has taught' : 'planned with nominal figures', (m) => {
      const { usesLessons, ...bench } = m.bench;
      void usesLessons;
      return { ...m, bench: on ? bench : { ...bench, usesLessons: false } };
    });
  }

  private isUsed(holds: (layer: Layer, recipe: string) => boolean): boolean {
    return this.store.muster()!.recipes.some((r) => r.layers.some((l) => holds(l, r.id)));
  }

  /** Each piece's own history, the mixes and films in order: a card to match reinforcements by. */
  protected readonly cards = computed(() =>
    pieceCards(this.logbook.entries(), this.steps(), this.zone(), {
      clocks: this.clocks(),
      origin: originOf(this.store.muster()!),
    }),
  );

  protected useDrying(lesson: DryingLesson): void {
    this.store.change(`${lesson.product}: drying ${this.times(lesson.median)}`, (m) =>
      withDryingLesson(m, lesson),
    );
    this.notices.tell(`Drying of ${lesson.product} is now as learned; undo takes it back.`);
  }

  protected useHands(lesson: HandsLesson): void {
    const steps = [...this.steps().values()];
    const pieces = steps.filter((s) => s.recipe.id === lesson.recipe && s.layer.id === lesson.layer).length;
    this.store.change(`${lesson.of}: minutes as learned`, (m) => withHandsLesson(m, lesson, pieces));
    this.notices.tell(`The minutes are now as learned, for a run of ${pieces}; undo takes it back.`);
  }

  protected allNominal(): void {
    this.store.change('learned figures nominal again', withoutLessons);
    this.notices.tell('Every learned figure is nominal again; undo takes it back.');
  }

  protected makeRecipe(card: PieceCard): void {
    const recipe = recipeOf(card, this.newId());
    this.store.change(`recipe as on ${card.name}`, (m) => ({ ...m, recipes: [...m.recipes, recipe] }));
    this.notices.tell(`“${recipe.name}” stands among the recipes, for reinforcements to match.`);
  }

  protected saveJson(): void {
    download(`${fileName(this.store.muster()!.name)}-log.json`, 'application/json', this.logbook.file());
  }

  protected saveCsv(): void {
    download(
      `${fileName(this.store.muster()!.name)}-log.csv`,
      'text/csv',
      writeLogCsv(this.logbook.entries()),
    );
  }

  protected bringIn(file: File): void {
    file
      .text()
      .then((text) => this.logbook.bringIn(text))
      .then(
        (n) => {
          this.fault.set(null);
          this.notices.tell(
            n === 0 ? 'All of these entries were here already.' : `${n} entries merged into the log.`,
          );
        },
        (error: Error) => this.fault.set(error.message),
      );
  }

  protected readonly cardsShown = signal(CARDS);
  /** On paper all of them. */
  protected print(): void {
    this.cardsShown.set(this.cards().length);
    setTimeout(() => window.print());
  }
  protected readonly peopleWords = (people: HandsLesson['people']): string =>
    people.map((p) => `, ${p.who} ${this.times(p.factor)}`).join('');
  protected readonly times = (x: number): string => `× ${x.toFixed(2)}`;
}

/** What a step is: as it is planned now, else as the log remembers it. */
function whereOf(e: LogEntry, step: StepRef | undefined): string {
  if (step) return `${step.unit.name}, ${step.piece.name}: ${step.layer.name}`;
  if (e.about) return `${e.about.unit}, ${e.about.piece}: ${e.about.layer}`;
  return 'step' in e && e.step !== undefined ? `a step that is not in this muster (${e.step})` : '';
}

function detailOf(e: LogEntry, mixture: string): string {
  const parts = [aboutOf(e, mixture), e.note ?? '', (e.people ?? []).join(' and ')];
  if (e.air) parts.push(`${Math.round(e.air.celsius)} °C, ${Math.round(e.air.humidityPercent)} %`);
  return parts.filter((p) => p !== '').join(' · ');
}

function aboutOf(e: LogEntry, mixture: string): string {
  switch (e.kind) {
    case 'done':
      return [`${e.minutes} min${e.isMeasured ? '' : ' as planned'}`, e.mixture ?? mixture]
        .filter((p) => p !== '')
        .join(', ');
    case 'jar':
      return e.ml > 0
        ? `${e.mixture}, ${e.ml} ml${e.until ? `, good until ${e.until.slice(0, 10)}` : ''}`
        : `${e.mixture}, thrown out`;
    case 'noted':
      return e.isForNextTime ? 'for next time' : '';
    case 'not-dry':
      return `${e.moreMinutes} min more`;
    case 'rework':
      return `${e.trouble}: ${e.cure}, ${e.minutes} min`;
    case 'verdict':
      return e.verdict;
    case 'forecast':
      return e.units.map((u) => `${u.name}: ${oddsWords(u.share)}`).join(', ');
    case 'looked':
      return `${e.text}: ${e.verdict === 'good' ? 'good' : 'not yet'}`;
    case 'placed':
      return e.text;
    case 'clock':
      return `${e.entries.length} entries moved by ${e.byMinutes} min`;
    default:
      return '';
  }
}
