/** The log in the browser: every entry is written before it is shown; entries are never changed. */
import { computed, inject, Injectable, signal } from '@angular/core';
import { airAt, localDateTime, minutesSince, originOf, spellsOf } from '#core/muster';
import { horizonDays } from '#core/plan';
import { entryId, logFileSchema, LOG_FORMAT, mergeLogs, type LogEntry } from '#core/session';
import { BenchClock } from './benchClock';
import { Database } from './database';
import { NEW_ID } from './environment';
import { MusterStore } from './musterStore';

type New<T> = T extends LogEntry ? Omit<T, 'id' | 'at' | 'act'> : never;

@Injectable({ providedIn: 'root' })
export class Logbook {
  private readonly database = inject(Database);
  private readonly clock = inject(BenchClock);
  private readonly newId = inject(NEW_ID);
  private readonly store = inject(MusterStore);
  /** who is at the bench tonight, by name; nobody named: whoever the bench knows, if that is one */
  readonly people = signal<readonly string[]>([]);
  private readonly spells = computed(() => {
    const muster = this.store.muster();
    return muster ? { origin: originOf(muster), list: spellsOf(muster, horizonDays(muster)) } : null;
  });
  /** milliseconds; of the last id, so that the next is later even within one */
  private lastStamp = 0;
  private readonly list = signal<readonly LogEntry[]>([]);
  /** by time */
  readonly entries = computed(() => this.list());
  /** null: everything is kept; otherwise why not */
  readonly trouble = signal<string | null>(null);
  readonly ready: Promise<void>;

  constructor() {
    this.ready = this.database.readLog().then(
      (entries) => this.list.set(mergeLogs(entries, [])),
      (error: unknown) => this.trouble.set(`The log cannot be read (${String(error)}).`),
    );
  }

  /** Writes an entry at the present moment; resolves when it is safe on disk. */
  async add(entry: New<LogEntry>, at: Date = this.clock.read()): Promise<void> {
    await this.addAll([entry], at);
  }

  /** Several at one moment: all of them are kept, or none. */
  async addAll(entries: readonly New<LogEntry>[], at: Date = this.clock.read()): Promise<void> {
    await this.addEach(entries.map((entry) => ({ entry, at })));
  }

  /** Several, each at its own moment: all of them are kept, or none. */
  async addEach(list: readonly { readonly entry: New<LogEntry>; readonly at: Date }[]): Promise<void> {
    const act = this.newEntryId();
    await this.write(
      list.map(
        ({ entry, at }) =>
          ({
            ...this.circumstances(at),
            ...entry,
            id: this.newEntryId(),
            at: localDateTime(at),
            ...(list.length > 1 ? { act } : {}),
          }) as LogEntry,
      ),
    );
  }

  private newEntryId(): string {
    this.lastStamp = Math.max(this.lastStamp + 1, this.clock.read().getTime());
    return entryId(this.lastStamp, this.newId());
  }

  /** Who, and in what air: by the readings of the bench where there are any, else by its climate. */
  private circumstances(at: Date): Pick<LogEntry, 'people' | 'air'> {
    const spells = this.spells();
    const known = this.store.muster()?.bench.people.map((p) => p.name) ?? [];
    const people = this.people().length > 0 ? [...this.people()] : known.length === 1 ? known : [];
    const air =
      spells && spells.list.length > 0
        ? airAt(spells.list, Math.max(0, minutesSince(spells.origin, localDateTime(at))))
        : null;
    return {
      ...(people.length > 0 ? { people } : {}),
      ...(air
        ? {
            air: {
              celsius: Math.round(air.celsius * 10) / 10,
              humidityPercent: Math.max(1, Math.round(air.humidityPercent)),
            },
          }
        : {}),
    };
  }

  /** Takes entries back, all of them or none; they and the taking back stay in the log. */
  async takeBack(entries: readonly LogEntry[]): Promise<void> {
    await this.addAll(entries.map((e) => ({ kind: 'taken-back' as const, entry: e.id })));
  }

  file(): string {
    return `${JSON.stringify({ format: LOG_FORMAT, entries: this.list() }, null, 1)}\n`;
  }

  /** @returns how many entries were new. @throws Error in words when the file is no log */
  async bringIn(text: string): Promise<number> {
    let value: unknown;
    try {
      value = JSON.parse(text);
    } catch {
      throw new Error('This is no JSON file; nothing is changed.');
    }
    const read = logFileSchema.safeParse(value);
    if (!read.success) {
      const first = read.error.issues[0];
      throw new Error(
        `This is no log: ${first?.path.join('.') ?? ''}: ${first?.message ?? ''}; nothing is changed.`,
      );
    }
    const known = new Set(this.list().map((e) => e.id));
    const fresh = read.data.entries.filter((e) => !known.has(e.id));
    await this.write(fresh);
    return fresh.length;
  }

  private async write(entries: readonly LogEntry[]): Promise<void> {
    try {
      await this.database.addToLog(entries);
      this.trouble.set(null);
    } catch (error) {
      this.trouble.set(
        `The log cannot be kept in this browser (${String(error)}). Take it away as a file before you close the page.`,
      );
    }
    this.list.update((list) => mergeLogs(list, entries));
  }
}
