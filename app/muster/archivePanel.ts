import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import type { Archive } from '#core/exchange';
import { Logbook } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Notices } from '../data/notices';
import { many } from '../ui/words';
import { Button } from '../ui/button';
import { Card } from '../ui/card';

/** What an archive holds, and where it is to go. Nothing happens before that is said. */
@Component({
  selector: 'pm-archive-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Card, Button],
  template: `
    <section pmCard="lamp" class="mb-5" aria-labelledby="archive">
      <h2 id="archive" class="mb-1 text-[1.25rem]">What the archive holds</h2>
      <p class="mb-3" data-testid="archive-holds">{{ holds() }}</p>
      <ul class="flex flex-col gap-3">
        <li class="flex flex-wrap items-center gap-x-4 gap-y-1">
          <button pmButton="lamp" (click)="beside()">As a muster of its own</button>
          <span class="text-mute">beside the others; nothing of yours changes</span>
        </li>
        <li class="flex flex-wrap items-center gap-x-4 gap-y-1">
          <button pmButton (click)="merge()">Merge its log into the one in hand</button>
          <span class="text-mute"
            >its {{ words(archive().log.length, 'entry', 'entries') }}, each once; the muster stays</span
          >
        </li>
        <li class="flex flex-wrap items-center gap-x-4 gap-y-1">
          <button pmButton (click)="replace()">In the place of “{{ store.muster()?.name }}”</button>
          <span class="text-mute">the muster is exchanged, which undo takes back; its log is merged</span>
        </li>
      </ul>
      @if (fault(); as text) {
        <p class="mt-3 text-shut" role="alert">{{ text }}</p>
      }
      <button pmButton="small" class="mt-3" (click)="shut.emit()">Leave it</button>
    </section>
  `,
})
export class ArchivePanel {
  protected readonly store = inject(MusterStore);
  private readonly logbook = inject(Logbook);
  private readonly notices = inject(Notices);
  readonly archive = input.required<Archive>();
  readonly shut = output();
  protected readonly words = many;
  protected readonly fault = signal<string | null>(null);
  protected readonly holds = computed(() => {
    const { muster, log, pictures } = this.archive();
    const pieces = muster.units.reduce((n, u) => n + u.pieces.length, 0);
    return `“${muster.name}”: ${many(muster.units.length, 'unit')}, ${many(pieces, 'piece')}, ${many(muster.recipes.length, 'recipe')}; a log of ${many(log.length, 'entry', 'entries')}, ${many(pictures, 'picture')}.`;
  });

  protected beside(): void {
    void this.run(async () => {
      const { muster } = this.archive();
      await this.store.add(muster, `${muster.name} brought in`);
      await this.mergeLog();
      return `“${muster.name}” is brought in as a muster of its own, beside the others.`;
    });
  }

  protected merge(): void {
    void this.run(async () => `${many(await this.mergeLog(), 'entry', 'entries')} merged into the log.`);
  }

  protected replace(): void {
    void this.run(async () => {
      const { muster } = this.archive();
      const before = this.store.muster()?.name ?? '';
      if (!this.store.change(`“${muster.name}” in the place of “${before}”`, () => muster))
        throw new Error('It is what is in hand already, or was refused; nothing was changed.');
      await this.mergeLog();
      return `“${muster.name}” stands in the place of “${before}”. Undo brings that back.`;
    });
  }

  private async mergeLog(): Promise<number> {
    const { log } = this.archive();
    return log.length === 0 ? 0 : this.logbook.merge(log);
  }

  private async run(work: () => Promise<string>): Promise<void> {
    this.fault.set(null);
    try {
      this.notices.tell(await work());
      this.shut.emit();
    } catch (error) {
      this.fault.set(error instanceof Error ? error.message : String(error));
    }
  }
}
