import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { ticksAt } from '#core/climate';
import { writeLogCsv } from '#core/exchange';
import { dryingFactor, handsFactor, type DryingLook } from '#core/learn';
import { familyOf, type FamilyId } from '#core/materials';
import { minutesSince, originOf } from '#core/muster';
import { compile } from '#core/plan';
import { dryingOf, workMinutes } from '#core/recipe';
import { standing, type LogEntry } from '#core/session';
import { Logbook } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Notices } from '../data/notices';
import { download, fileName } from '../ui/download';

const WORDS: Readonly<Record<LogEntry['kind'], string>> = {
  done: 'done',
  dry: 'was dry',
  'not-dry': 'not dry yet',
  skipped: 'skipped',
  rework: 'rework',
  verdict: 'pilot',
  stopped: 'stopped for the evening',
  noted: 'note',
  'taken-back': 'taken back',
};

/** What was done to each piece, and what the estimates have learned from it. */
@Component({
  selector: 'pm-log-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './log.view.html',
})
export class LogView {
  private readonly store = inject(MusterStore);
  protected readonly logbook = inject(Logbook);
  private readonly notices = inject(Notices);
  protected readonly search = signal('');
  protected readonly fault = signal<string | null>(null);

  private readonly compiled = computed(() => compile(this.store.muster()!));
  protected readonly rows = computed(() => {
    const { steps } = this.compiled();
    const holds = new Set(standing(this.logbook.entries()).map((e) => e.id));
    const wanted = this.search().trim().toLowerCase();
    return [...this.logbook.entries()]
      .reverse()
      .map((e) => {
        const step = 'step' in e ? steps.get(e.step) : undefined;
        return {
          entry: e,
          at: e.at.replace('T', ' '),
          what: WORDS[e.kind],
          where: step
            ? `${step.unit.name}, ${step.piece.name}: ${step.layer.name}`
            : 'step' in e
              ? e.step
              : '',
          detail: detailOf(e, step?.layer.mixture ?? ''),
          isGone: e.kind !== 'taken-back' && !holds.has(e.id),
        };
      })
      .filter(
        (r) => wanted === '' || `${r.at} ${r.what} ${r.where} ${r.detail}`.toLowerCase().includes(wanted),
      );
  });

  /** Drying by family: nominal, or learned from so many looks. */
  protected readonly drying = computed(() => {
    const { steps, clocks } = this.compiled();
    const origin = originOf(this.store.muster()!);
    const entries = standing(this.logbook.entries());
    const ended = new Map(
      entries.flatMap((e) => (e.kind === 'done' ? [[e.step, minutesSince(origin, e.at)] as const] : [])),
    );
    const looks = new Map<FamilyId, DryingLook[]>();
    for (const e of entries) {
      if (e.kind !== 'dry' && e.kind !== 'not-dry') continue;
      const step = steps.get(e.step);
      const end = ended.get(e.step);
      if (!step || end === undefined || dryingOf(step.layer) === 0) continue;
      const points = clocks.get(familyOf(step.layer.family).drying);
      const at = minutesSince(origin, e.at);
      const ticks = points ? ticksAt(points, at) - ticksAt(points, end) : at - end;
      if (ticks <= 0) continue;
      looks.set(step.layer.family, [
        ...(looks.get(step.layer.family) ?? []),
        { share: ticks / dryingOf(step.layer), wasDry: e.kind === 'dry' },
      ]);
    }
    return [...looks].map(([family, list]) => ({
      family,
      name: familyOf(family).name,
      ...dryingFactor(list),
    }));
  });
  protected readonly hands = computed(() => {
    const { steps } = this.compiled();
    const ratios = standing(this.logbook.entries()).flatMap((e) => {
      const step = e.kind === 'done' ? steps.get(e.step) : undefined;
      return step && e.kind === 'done' && e.minutes > 0
        ? [e.minutes / workMinutes(step.layer, step.piece.count)]
        : [];
    });
    return handsFactor(ratios);
  });

  /** Each piece's own history, the mixes and films in order: a card to match reinforcements by. */
  protected readonly cards = computed(() => {
    const { steps } = this.compiled();
    const pieces = new Map<string, { name: string; lines: string[] }>();
    for (const e of standing(this.logbook.entries())) {
      const step = 'step' in e ? steps.get(e.step) : undefined;
      if (!step || (e.kind !== 'done' && e.kind !== 'rework' && e.kind !== 'skipped')) continue;
      const card = pieces.get(step.piece.id) ?? { name: `${step.piece.name} (${step.unit.name})`, lines: [] };
      card.lines.push(
        `${e.at.slice(0, 10)} ${step.layer.name}: ${WORDS[e.kind]}${detailOf(e, step.layer.mixture) ? `, ${detailOf(e, step.layer.mixture)}` : ''}`,
      );
      pieces.set(step.piece.id, card);
    }
    return [...pieces.values()];
  });

  protected use(family: FamilyId, factor: number): void {
    const by = Math.round(factor * 100) / 100;
    this.store.change(`${familyOf(family).name}: drying × ${by}`, (m) => ({
      ...m,
      recipes: m.recipes.map((r) => ({
        ...r,
        layers: r.layers.map((l) =>
          l.family === family && l.dryMinutes > 0 && l.window?.closesMinutes == null
            ? { ...l, dryMinutes: Math.max(1, Math.round(l.dryMinutes * by)) }
            : l,
        ),
      })),
    }));
    this.notices.tell(`Drying of ${familyOf(family).name} is now × ${by}; undo takes it back.`);
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

  protected bringIn(input: HTMLInputElement): void {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
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

  protected readonly print = (): void => window.print();
  protected readonly times = (x: number): string => `× ${x.toFixed(2)}`;
}

function detailOf(e: LogEntry, mixture: string): string {
  switch (e.kind) {
    case 'done':
      return [`${e.minutes} min`, mixture].filter((p) => p !== '').join(', ');
    case 'not-dry':
      return `${e.moreMinutes} min more`;
    case 'rework':
      return `${e.trouble}: ${e.cure}, ${e.minutes} min`;
    case 'verdict':
      return e.verdict;
    default:
      return e.note ?? '';
  }
}
