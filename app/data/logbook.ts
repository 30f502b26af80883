/**
 * The log of the muster in hand: every entry is written before it is shown, and never changed; entries of other tabs come in within a
 * moment.
 */
import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import type { Subscription } from 'dexie';
import {
  afterReopening,
  entryId,
  LOG_FORMAT,
  mergeLogs,
  newEntries,
  type LogEntry,
  type New,
} from '#core/log';
import { instantOf } from '#core/muster';
import { BenchClock } from './benchClock';
import { Database } from './database';
import { NEW_ID, ZONE } from './environment';
import { fetchCraft } from './fetchCraft';
import { Keeping } from './keeping';
import { MusterStore } from './musterStore';
import { Notices } from './notices';
import { READ_LOG } from './reading';
import { forget, recall, remember } from './tabMemory';

/** A write that failed is tried again so often. */
const RETRY_MS = 5000;

/** What to say of an entry that waits, after its name. */
export const NOT_SAVED_YET = `is not saved yet: this browser can’t write. We try again every ${RETRY_MS / 1000} seconds.`;

/** What a rehearsal has written: it belongs to its tab and goes with it. */
const REHEARSED = 'patient-muster rehearsed';
const REHEARSED_ON = 'patient-muster rehearsed on';

/** What became of entries that were to be written. */
export interface Written {
  /** those of them that are in the log now; what it had already is not among them */
  readonly added: readonly LogEntry[];
  /** false: the disk refused; they wait, and are tried again */
  readonly isSaved: boolean;
}

@Injectable({ providedIn: 'root' })
export class Logbook {
  private readonly database = inject(Database);
  private readonly clock = inject(BenchClock);
  private readonly newId = inject(NEW_ID);
  private readonly zone = inject(ZONE);
  private readonly store = inject(MusterStore);
  private readonly keeping = inject(Keeping);
  private readonly notices = inject(Notices);
  private readonly readLog = inject(READ_LOG);
  /** who is at the bench tonight, by name; nobody named: whoever the bench knows, if that is one */
  readonly people = signal<readonly string[]>([]);
  /** milliseconds; of the last id, so that the next is later even within one */
  private lastStamp = 0;
  private readonly list = signal<readonly LogEntry[]>([]);
  /** those that could not be written yet, muster by muster */
  private readonly unwritten = signal<readonly { readonly of: string; readonly entry: LogEntry }[]>([]);
  /** ids of entries in the database that can't be read */
  private readonly damaged = new Set<string>();
  private watching: Subscription | undefined;
  private of: string | null = null;
  private loading: Promise<void> = Promise.resolve();
  private retry: ReturnType<typeof setTimeout> | undefined;

  /** what has happened in the rehearsal, and nowhere else */
  private readonly rehearsed = signal<readonly LogEntry[]>([]);
  /** is what is done now only tried? */
  readonly isRehearsal = computed(() => this.clock.rehearsal() !== null);
  /** what is written, by time; in a rehearsal with what happened there */
  readonly entries = computed(() =>
    this.isRehearsal() && this.rehearsed().length > 0
      ? mergeLogs(this.list(), this.rehearsed())
      : this.list(),
  );
  /** null: the log could be read; otherwise why not */
  readonly trouble = signal<string | null>(null);

  constructor() {
    const turning = this.store.opened.subscribe((of) => this.turnTo(of));
    // With its end a rehearsal leaves no trace.
    const ending = this.clock.rehearsalEnded.subscribe(() => this.setRehearsed([]));
    inject(DestroyRef).onDestroy(() => {
      turning.unsubscribe();
      ending.unsubscribe();
      this.watching?.unsubscribe();
      clearTimeout(this.retry);
    });
  }

  /** Resolves when the log of the muster in hand has been read. */
  get ready(): Promise<void> {
    return this.loading;
  }

  /** Writes an entry at the present moment; resolves when it is safe on disk, or is known not to be. */
  async add(entry: New<LogEntry>, at: Date = this.clock.read()): Promise<Written> {
    return this.addAll([entry], at);
  }

  /** Several at one moment: all of them are saved, or none. */
  async addAll(entries: readonly New<LogEntry>[], at: Date = this.clock.read()): Promise<Written> {
    return this.addEach(entries.map((entry) => ({ entry, at })));
  }

  /** Several, each at its own moment: all of them are saved, or none. */
  async addEach(list: readonly { readonly entry: New<LogEntry>; readonly at: Date }[]): Promise<Written> {
    const act = this.newEntryId();
    const muster = this.store.muster();
    const { aboutStep, airOf } = await fetchCraft();
    const airThen = muster ? airOf(muster) : () => null;
    return this.write(
      list.map(({ entry, at }) => {
        const about =
          muster && 'step' in entry && entry.step !== undefined ? aboutStep(muster, entry.step) : null;
        return {
          ...this.circumstances(airThen(instantOf(at))),
          ...entry,
          ...(about ? { about } : {}),
          id: this.newEntryId(),
          at: instantOf(at),
          ...(list.length > 1 ? { act } : {}),
        } as LogEntry;
      }),
    );
  }

  /** Takes entries back, all of them or none; they and the taking back stay in the log. */
  async takeBack(entries: readonly LogEntry[]): Promise<Written> {
    return this.addAll(entries.map((e) => ({ kind: 'taken-back' as const, entry: e.id })));
  }

  /** The whole log as a file, with what could not be written in this browser; in a rehearsal with what happened there. */
  file(): string {
    const waiting = this.unwritten().flatMap((u) => (u.of === this.of ? [u.entry] : []));
    return `${JSON.stringify({ format: LOG_FORMAT, entries: mergeLogs(this.entries(), waiting) }, null, 1)}\n`;
  }

  /** @returns how many entries were new. @throws Error in words when the file is no log, or cannot be written */
  async bringIn(text: string): Promise<number> {
    return this.merge(await this.readLog(text, this.store.muster()?.bench.timeZone ?? this.zone));
  }

  /** Entries of another log of this muster, each once. @returns how many were new. @throws Error when they can't be written */
  async merge(entries: readonly LogEntry[]): Promise<number> {
    await this.ready;
    if (this.of === null) throw new Error('There is no muster in hand to which this log could belong.');
    const fresh = await this.database.mergeLog(this.of, entries);
    this.keeping.wrote();
    this.list.update((list) => mergeLogs(list, fresh));
    return fresh.length;
  }

  private newEntryId(): string {
    this.lastStamp = Math.max(this.lastStamp + 1, this.clock.read().getTime());
    return entryId(this.lastStamp, this.newId());
  }

  /** Who, and in what air. */
  private circumstances(air: LogEntry['air'] | null): Pick<LogEntry, 'people' | 'air'> {
    const known = this.store.muster()?.bench.people.map((p) => p.name) ?? [];
    const people = this.people().length > 0 ? [...this.people()] : known.length === 1 ? known : [];
    return { ...(people.length > 0 ? { people } : {}), ...(air ? { air } : {}) };
  }

  private turnTo(of: string | null): void {
    if (of === this.of) return;
    this.of = of;
    this.list.set([]);
    this.damaged.clear();
    this.trouble.set(null);
    this.watching?.unsubscribe();
    this.rehearsed.set([]);
    if (of === null) return;
    this.loading = Promise.all([this.database.readLog(of), this.recalled(of)]).then(
      ([{ entries, damaged }, rehearsed]) => {
        if (this.of !== of) return;
        this.passOver(damaged);
        this.rehearsed.set(rehearsed);
        this.list.set(mergeLogs(entries, []));
        this.watching = this.database.watchLog(of).subscribe({
          next: (count) => void this.catchUp(of, count),
          error: () => undefined,
        });
      },
      (error: unknown) => this.trouble.set(`The log cannot be read (${String(error)}).`),
    );
  }

  /** Entries that can't be read are left out, and left where they are. */
  private passOver(damaged: readonly string[]): void {
    for (const id of damaged) this.damaged.add(id);
    const n = this.damaged.size;
    if (n > 0)
      this.trouble.set(
        n === 1
          ? 'One entry of the log is damaged and can’t be read. We leave it out, and leave it where it is; everything else works.'
          : `${n} entries of the log are damaged and can’t be read. We leave them out, and leave them where they are; everything else works.`,
      );
  }

  private setRehearsed(entries: readonly LogEntry[]): void {
    if (entries.length === 0 && this.rehearsed().length === 0) return;
    this.rehearsed.set(entries);
    if (entries.length === 0) return forget(REHEARSED);
    remember(REHEARSED_ON, this.of ?? '');
    remember(REHEARSED, JSON.stringify({ format: LOG_FORMAT, entries }));
  }

  /** What this tab remembers of a rehearsal on a muster, read like any other log. */
  private async recalled(of: string): Promise<readonly LogEntry[]> {
    const text = recall(REHEARSED);
    if (text === null || !this.isRehearsal() || recall(REHEARSED_ON) !== of) return [];
    return this.readLog(text, this.zone).catch(() => []);
  }

  /** What other tabs have added; entries are never changed, so only new ones are read. */
  private async catchUp(of: string, count: number): Promise<void> {
    if (count <= this.list().length + this.damaged.size) return;
    try {
      const ids = await this.database.logIds(of);
      const known = new Set(this.list().map((e) => e.id));
      const missing = ids.filter((id) => !known.has(id) && !this.damaged.has(id));
      if (missing.length === 0) return;
      const { entries, damaged } = await this.database.readLog(of, missing);
      if (this.of !== of) return;
      this.passOver(damaged);
      this.list.update((list) => mergeLogs(list, entries));
    } catch {
      // The database cannot be read now: the next entry in any tab asks again.
    }
  }

  /** What could not be written before goes first; nothing counts as done that is not on disk. */
  private async write(entries: readonly LogEntry[]): Promise<Written> {
    const of = this.of;
    if (of === null) {
      this.keeping.failed('The log is', new Error('no muster is in hand'));
      return { added: [], isSaved: false };
    }
    if (this.isRehearsal()) {
      const added = newEntries(this.entries(), afterReopening(this.entries(), entries));
      this.setRehearsed(mergeLogs(this.rehearsed(), added));
      this.tellRepeats(entries.length - added.length);
      return { added, isSaved: true };
    }
    clearTimeout(this.retry);
    const waiting = [...this.unwritten(), ...entries.map((entry) => ({ of, entry }))];
    this.keeping.waits(this, waiting.length);
    const asked = new Set(entries.map((e) => e.id));
    const added: LogEntry[] = [];
    try {
      for (const muster of new Set(waiting.map((w) => w.of))) {
        const own = waiting.flatMap((w) => (w.of === muster ? [w.entry] : []));
        const fresh = await this.database.addToLog(muster, own);
        const written = new Set(own.map((e) => e.id));
        this.unwritten.update((list) => list.filter((u) => !written.has(u.entry.id)));
        if (muster === this.of) this.list.update((list) => mergeLogs(list, fresh));
        added.push(...fresh.filter((e) => asked.has(e.id)));
      }
      this.tellRepeats(entries.length - added.length);
      this.keeping.wrote();
      this.keeping.waits(this, this.unwritten().length);
      return { added, isSaved: true };
    } catch (error) {
      // Another press may have failed meanwhile: its entries wait too.
      this.unwritten.update((list) => [
        ...list,
        ...waiting.filter((w) => !list.some((u) => u.entry.id === w.entry.id)),
      ]);
      this.keeping.waits(this, this.unwritten().length);
      this.keeping.failed('The log is', error);
      this.retry = setTimeout(() => void this.write([]), RETRY_MS);
      return { added: [], isSaved: false };
    }
  }

  private tellRepeats(count: number): void {
    if (count === 0) return;
    this.notices.tell(
      count === 1
        ? 'One step was logged already, in another tab perhaps. It counts once.'
        : `${count} steps were logged already, in another tab perhaps. They count once.`,
    );
  }
}
