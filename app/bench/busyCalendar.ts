import { ChangeDetectionStrategy, Component, DestroyRef, inject, signal } from '@angular/core';
import { cutByBusy } from '#core/exchange';
import { daysBetween } from '#core/muster';
import { NEW_ID } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { Notices } from '../data/notices';
import { OPEN_READER } from '../data/reading';
import { FileButton } from '../ui/fileButton';
import { many } from '../ui/words';

const MOST_BYTES = 10_000_000;
/** Beyond the last table date a late plan may still need to know. */
const DAYS_BEYOND = 60;

/** A calendar of what else its owner does: sessions are cut where it says busy. */
@Component({
  selector: 'pm-busy-calendar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FileButton],
  template: `
    <div class="flex flex-wrap items-center gap-3">
      <pm-file word="Cut by a busy calendar" accept=".ics,text/calendar" (chosen)="take($event)" />
      <span class="text-[0.9rem] text-mute"
        >an .ics file, repeats and time zones understood; it stays here</span
      >
    </div>
    @if (said(); as text) {
      <p class="mt-2" role="status">{{ text }}</p>
    }
    @if (fault(); as text) {
      <p class="mt-2 text-shut" role="alert">{{ text }}</p>
    }
  `,
})
export class BusyCalendar {
  private readonly store = inject(MusterStore);
  private readonly notices = inject(Notices);
  private readonly newId = inject(NEW_ID);
  private readonly reader = inject(OPEN_READER)();
  protected readonly said = signal<string | null>(null);
  protected readonly fault = signal<string | null>(null);

  constructor() {
    inject(DestroyRef).onDestroy(() => this.reader.close());
  }

  protected async take(file: File): Promise<void> {
    this.fault.set(null);
    this.said.set('Reading…');
    try {
      if (file.size > MOST_BYTES)
        throw new Error(`${file.name} has more than ${MOST_BYTES / 1_000_000} MB; nothing was changed.`);
      const muster = this.store.muster();
      if (!muster) return;
      const from = muster.startsOn.slice(0, 10);
      const last = muster.units.reduce((a, u) => (u.table > a ? u.table : a), muster.startsOn);
      const days = Math.max(1, daysBetween(from, last.slice(0, 10))) + DAYS_BEYOND;
      const { spans, faults } = await this.reader.readBusy(
        await file.text(),
        muster.bench.timeZone,
        from,
        days,
      );
      let counts = { shortened: 0, gone: 0 };
      const isCut = this.store.change(`Sessions cut by ${file.name}`, (m) => {
        const cut = cutByBusy(m, spans, from, days, this.newId);
        counts = cut;
        return cut.muster;
      });
      const lost = faults.length > 0 ? ` Not understood: ${faults.slice(0, 5).join(', ')}.` : '';
      const words = isCut
        ? `${many(counts.shortened, 'session')} shortened, ${counts.gone} gone.`
        : 'No session lies where this calendar says busy.';
      this.said.set(words + lost);
      if (isCut) this.notices.tell(words, { word: 'Undo', run: () => this.store.undo() });
    } catch (error) {
      this.said.set(null);
      this.fault.set(error instanceof Error ? error.message : String(error));
    }
  }
}
