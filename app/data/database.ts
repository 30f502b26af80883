/**
 * What the browser keeps (IndexedDB): musters side by side, each with its history, its log and its newest plan. The database is the one
 * truth of all tabs: every change is made in a transaction on what is there at that moment, not on what a tab believes.
 */
import { inject, Injectable } from '@angular/core';
import * as z from 'zod';
import Dexie, { liveQuery, type Observable, type Table, type Transaction } from 'dexie';
import type { Solution } from '#core/kernel';
import { fromFirstFormat, instantOf, type Instant, type Muster } from '#core/muster';
import {
  afterReopening,
  DECIDING_KINDS,
  entrySchema,
  fromFirstLog,
  newEntries,
  type LogEntry,
} from '#core/log';
import { NOW, ZONE } from './environment';
import { OutdatedError } from './outdated';

/** The setting that says whether alarms ring: `yes` or `no`. */
export const ALARMS_ON = 'alarms on';

/** One of the musters, without its contents. */
export interface KeptMuster {
  readonly id: string;
  readonly name: string;
  /** id of its current state */
  readonly current: number;
  /** counts up with every change, undo and redo, so that a tab sees that it is behind */
  readonly revision: number;
  readonly changedAt: Instant;
  readonly isArchived: boolean;
  /** null: not in the bin */
  readonly binnedAt: Instant | null;
}

/** One state of a muster; its states in order of `id` are the undo history. */
export interface KeptState {
  readonly id: number;
  /** the muster it is a state of */
  readonly of: string;
  /** what led to it, in words */
  readonly label: string;
  readonly at: Instant;
  /** the tab that made it, the newest state up to which it had seen all when it did, and what it touched */
  readonly tab: string;
  readonly base: number;
  readonly touches: readonly string[];
  /** letters of its text */
  readonly size: number;
}

interface KeptText {
  readonly id: number;
  readonly text: string;
}

const keptPlanSchema = z.looseObject({
  id: z.string(),
  /** the muster it was made for, as text, so that a stale plan is never shown for a changed muster */
  musterText: z.string(),
  /** the moment from which on it was planned, and the log entries that it went by: it is explained as it was solved */
  now: z.string().nullable(),
  logged: z.array(z.string()),
  isMissed: z.boolean(),
  /** the kernel's judge decides whether it is one of this muster */
  solution: z.custom<Solution>(
    (s) => typeof s === 'object' && s !== null && Array.isArray((s as { operations?: unknown }).operations),
  ),
  /** who does each step, where several work */
  hands: z.record(z.string(), z.string()).optional(),
  /** lateness of the naive order, null where it has none that ends */
  naiveLateMinutes: z.number().nullable(),
});
export type KeptPlan = Readonly<z.infer<typeof keptPlanSchema>>;

interface KeptEntry {
  readonly of: string;
  readonly id: string;
  readonly kind: LogEntry['kind'];
  readonly entry: LogEntry;
}

/** A log as it was read. */
export interface ReadLog {
  readonly entries: readonly LogEntry[];
  /** ids of entries that can't be read */
  readonly damaged: readonly string[];
}

interface KeptSetting {
  readonly key: string;
  readonly value: string;
}

/** A change as one tab wants it. */
export interface Wanted {
  readonly label: string;
  readonly touches: readonly string[];
  readonly tab: string;
  /** the state that the tab takes to be the current one */
  readonly base: number;
  /** the newest state of which the tab has seen all that went before */
  readonly seen: number;
  /** what the state becomes if nobody else has changed it meanwhile */
  readonly text: string;
  /** the same change made on another state than the one seen. @throws Error in words when it can't be made there */
  readonly again: (text: string) => string;
}

/** What came of a change: the state that is kept now, and whether it was made on another one than the tab saw. */
export interface Kept {
  readonly state: KeptState;
  readonly revision: number;
  readonly text: string;
  readonly wasMoved: boolean;
  /** id of the oldest state that is still kept */
  readonly oldest: number;
}

/** States kept for undo, and letters of all of them together. */
export const MOST_STATES = 60;
export const MOST_LETTERS = 12_000_000;
/** The first muster of a browser, and the one that a browser of the first edition kept. */
export const FIRST = 'first';
/** So many entries are read or written before the page may draw again. */
const BUNDLE = 250;

/** The version of what is kept. A browser that has a newer one was used by a newer edition of this program. */
const VERSION = 3;
/** Dexie counts a browser's versions in tens. */
const DEXIE_STEP = 10;

class MusterDatabase extends Dexie {
  readonly musters!: Table<KeptMuster, string>;
  readonly states!: Table<KeptState, number>;
  readonly texts!: Table<KeptText, number>;
  readonly plans!: Table<KeptPlan, string>;
  readonly settings!: Table<KeptSetting, string>;
  readonly entries!: Table<KeptEntry, [string, string]>;

  constructor(zone: string) {
    super('patient-muster');
    this.version(1).stores({ states: '++id', plans: 'id', settings: 'key' });
    this.version(2).stores({ log: 'id, at' });
    this.version(VERSION)
      .stores({ musters: 'id', states: '++id, of', texts: 'id', entries: '[of+id], of, [of+kind]' })
      .upgrade((transaction) => fromSecondVersion(transaction, zone));
  }
}

@Injectable({ providedIn: 'root' })
export class Database {
  private readonly now = inject(NOW);
  private readonly db = new MusterDatabase(inject(ZONE));

  /** Has a newer edition of this program been at what is kept here? */
  async isOutdated(): Promise<boolean> {
    if (!this.db.isOpen()) await this.db.open();
    return this.db.backendDB().version > VERSION * DEXIE_STEP;
  }

  /** Asked before anything is written. @throws OutdatedError */
  private async upToDate(): Promise<void> {
    if (await this.isOutdated()) throw new OutdatedError();
  }

  /** All musters, the last changed first. */
  async musters(): Promise<KeptMuster[]> {
    const all = await this.db.musters.toArray();
    return all.sort((a, b) => b.changedAt.localeCompare(a.changedAt) || a.id.localeCompare(b.id));
  }

  /** The list of musters, now and whenever any tab changes one. */
  watchMusters(): Observable<KeptMuster[]> {
    return liveQuery(() => this.musters());
  }

  /** One muster's row, now and whenever any tab changes it. */
  watchMuster(id: string): Observable<KeptMuster | undefined> {
    return liveQuery(() => this.db.musters.get(id));
  }

  /** The history of a muster, oldest first, and the text of its current state; null where there is no such muster. */
  async load(id: string): Promise<{ muster: KeptMuster; states: KeptState[]; text: string } | null> {
    return this.db.transaction('r', this.db.musters, this.db.states, this.db.texts, async () => {
      const muster = await this.db.musters.get(id);
      if (!muster) return null;
      return { muster, states: await this.statesOf(id), text: await this.textOf(muster.current) };
    });
  }

  /** @throws Error where there is no such state */
  async textOf(state: number): Promise<string> {
    const kept = await this.db.texts.get(state);
    if (!kept) throw new Error(`State ${state} is not there any more.`);
    return kept.text;
  }

  /** A new muster beside the others. */
  async create(id: string, muster: Muster, label: string): Promise<void> {
    await this.write(async () => {
      const text = JSON.stringify(muster);
      const state = this.stateOf(id, (await this.lastId()) + 1, text, {
        label,
        touches: [],
        tab: '',
        seen: 0,
      });
      await this.db.states.add(state);
      await this.db.texts.add({ id: state.id, text });
      await this.db.musters.add({
        id,
        name: muster.name,
        current: state.id,
        revision: 1,
        changedAt: instantOf(this.now()),
        isArchived: false,
        binnedAt: null,
      });
    });
  }

  /** Makes a change on the muster as it is now, drops what was undone beyond it, and forgets the oldest. All or nothing. */
  async change(id: string, wanted: Wanted): Promise<Kept> {
    return this.write(async () => {
      // Asked for and written together: between a question and the next the page may draw.
      const [muster, states, lastId] = await Promise.all([
        this.existing(id),
        this.statesOf(id),
        this.lastId(),
      ]);
      const wasMoved = muster.current !== wanted.base;
      const text = wasMoved ? wanted.again(await this.textOf(muster.current)) : wanted.text;
      const undone = states.filter((s) => s.id > muster.current);
      const revision = muster.revision + 1;
      const { name } = JSON.parse(text) as Pick<Muster, 'name'>;
      const state = this.stateOf(id, lastId + 1, text, wanted);
      const line = [...states.slice(0, states.length - undone.length), state];
      const old = tooOld(line);
      const gone = [...undone, ...old].map((s) => s.id);
      const changedAt = instantOf(this.now());
      await Promise.all([
        this.db.states.add(state),
        this.db.texts.add({ id: state.id, text }),
        this.db.musters.put({ ...muster, name, current: state.id, revision, changedAt }),
        this.drop(gone),
      ]);
      return { state, revision, text, wasMoved, oldest: line[old.length]!.id };
    });
  }

  /**
   * Goes that number of states back (negative) or forth in the history.
   * @param from the state that is to be left; without it whichever is the current one
   * @returns null where there is none; `moved` where another tab has made another state the current one, and nothing was done
   */
  async go(
    id: string,
    steps: number,
    from?: number,
  ): Promise<{ current: number; revision: number; text: string } | 'moved' | null> {
    return this.write(async () => {
      const muster = await this.existing(id);
      if (from !== undefined && muster.current !== from) return 'moved';
      const ids = await this.db.states.where('of').equals(id).primaryKeys();
      ids.sort((a, b) => a - b);
      const current = ids[ids.indexOf(muster.current) + steps];
      if (current === undefined) return null;
      const text = await this.textOf(current);
      const revision = muster.revision + 1;
      const { name } = JSON.parse(text) as Pick<Muster, 'name'>;
      await this.db.musters.put({ ...muster, name, current, revision, changedAt: instantOf(this.now()) });
      return { current, revision, text };
    });
  }

  /** Archives a muster or puts it in the bin, or takes it out of either. */
  async setPlace(id: string, place: Partial<Pick<KeptMuster, 'isArchived' | 'binnedAt'>>): Promise<void> {
    await this.write(
      async () => void (await this.db.musters.put({ ...(await this.existing(id)), ...place })),
    );
  }

  /** Takes a muster out of the bin for good, with its history, its log and its plan. @throws Error unless it lies in the bin */
  async destroy(id: string): Promise<void> {
    await this.upToDate();
    await this.db.transaction('rw', this.db.tables, async () => {
      const muster = await this.existing(id);
      if (muster.binnedAt === null) throw new Error(`${muster.name} does not lie in the bin.`);
      await this.drop(await this.db.states.where('of').equals(id).primaryKeys());
      await this.db.entries.where('of').equals(id).delete();
      await this.db.plans.delete(id);
      await this.db.musters.delete(id);
    });
  }

  async keepPlan(plan: KeptPlan): Promise<void> {
    await this.upToDate();
    await this.db.plans.put(plan);
  }

  /** The plan that was kept last; none where there is none, or it is damaged: it is only made again. */
  async newestPlan(id: string): Promise<KeptPlan | undefined> {
    return keptPlanSchema.safeParse(await this.db.plans.get(id)).data;
  }

  /** How many entries a muster's log has, now and whenever any tab adds to it. Counted only: whatever else is watched is noted key by key. */
  watchLog(of: string): Observable<number> {
    return liveQuery(() => this.db.entries.where('of').equals(of).count());
  }

  async logIds(of: string): Promise<string[]> {
    const keys = await this.db.entries.where('of').equals(of).primaryKeys();
    return keys.map(([, id]) => id);
  }

  /** The log as far as it can be read, and the ids of what can't be: that is passed over, and stays as it is. */
  async readLog(of: string, ids?: readonly string[]): Promise<ReadLog> {
    const rows =
      ids && ids.length <= BUNDLE
        ? (await this.db.entries.bulkGet(ids.map((id): [string, string] => [of, id]))).flatMap((r) => r ?? [])
        : await this.db.entries.where('of').equals(of).toArray();
    const sound = rows.filter(isSound);
    const damaged = sound.length === rows.length ? [] : rows.filter((r) => !isSound(r)).map((r) => r.id);
    return { entries: sound.map((r) => r.entry), damaged };
  }

  /**
   * Adds what happened to a muster's log, all or none; a step that is over is not done a second time, unless a rework has reopened it.
   * @returns those that were added
   */
  async addToLog(of: string, entries: readonly LogEntry[]): Promise<LogEntry[]> {
    await this.upToDate();
    return this.db.transaction('rw', this.db.entries, async () => {
      const keys = DECIDING_KINDS.map((kind): [string, string] => [of, kind]);
      const rows = await this.db.entries.where('[of+kind]').anyOf(keys).toArray();
      const deciding = rows.filter(isSound).map((r) => r.entry);
      return this.addNew(of, newEntries(deciding, afterReopening(deciding, entries)));
    });
  }

  /** Merges another log into a muster's, all or none; entries already there stay as they are. @returns those that were added */
  async mergeLog(of: string, entries: readonly LogEntry[]): Promise<LogEntry[]> {
    await this.upToDate();
    return this.db.transaction('rw', this.db.entries, () => this.addNew(of, entries));
  }

  /** In bundles, so that the page goes on between them; one transaction all the same. */
  private async addNew(of: string, entries: readonly LogEntry[]): Promise<LogEntry[]> {
    const all = [...new Map(entries.map((e) => [e.id, e])).values()];
    const fresh: LogEntry[] = [];
    for (let k = 0; k < all.length; k += BUNDLE) {
      const bundle = all.slice(k, k + BUNDLE);
      const known = await this.db.entries.bulkGet(bundle.map((e): [string, string] => [of, e.id]));
      const missing = bundle.filter((_, i) => !known[i]);
      await this.db.entries.bulkAdd(missing.map((entry) => ({ of, id: entry.id, kind: entry.kind, entry })));
      fresh.push(...missing);
    }
    return fresh;
  }

  async setting(key: string): Promise<string | undefined> {
    return (await this.db.settings.get(key))?.value;
  }

  async keepSetting(key: string, value: string): Promise<void> {
    await this.upToDate();
    await this.db.settings.put({ key, value });
  }

  private async write<T>(work: () => Promise<T>): Promise<T> {
    await this.upToDate();
    return this.db.transaction('rw', this.db.musters, this.db.states, this.db.texts, work);
  }

  private async existing(id: string): Promise<KeptMuster> {
    const muster = await this.db.musters.get(id);
    if (!muster) throw new Error('This muster has been deleted for good in another tab.');
    return muster;
  }

  /** Its history, oldest first. */
  private async statesOf(id: string): Promise<KeptState[]> {
    return this.db.states.where('of').equals(id).sortBy('id');
  }

  /** The newest state of all musters; 0 while there is none. */
  private async lastId(): Promise<number> {
    const [last] = await this.db.states.toCollection().reverse().limit(1).primaryKeys();
    return last ?? 0;
  }

  private stateOf(
    of: string,
    id: number,
    text: string,
    { label, touches, tab, seen }: Pick<Wanted, 'label' | 'touches' | 'tab' | 'seen'>,
  ): KeptState {
    return { id, of, label, at: instantOf(this.now()), tab, base: seen, touches, size: text.length };
  }

  private async drop(ids: readonly number[]): Promise<void> {
    if (ids.length === 0) return;
    await Promise.all([this.db.states.bulkDelete([...ids]), this.db.texts.bulkDelete([...ids])]);
  }
}

/** Does the row hold an entry that can be read? A broken disk, or an older program, may have left another. */
function isSound(row: KeptEntry): boolean {
  return entrySchema.safeParse(row.entry).success && row.entry.id === row.id && row.entry.kind === row.kind;
}

/** Of more states than are kept, or longer ones, the oldest; the newest never. */
function tooOld(states: readonly KeptState[]): KeptState[] {
  let letters = states.reduce((sum, s) => sum + s.size, 0);
  const old: KeptState[] = [];
  for (const s of states.slice(0, -1)) {
    if (states.length - old.length <= MOST_STATES && letters <= MOST_LETTERS) break;
    letters -= s.size;
    old.push(s);
  }
  return old;
}

/** What the second version kept: one muster in whole states, one log by the wall clock. It becomes the first of several. */
async function fromSecondVersion(transaction: Transaction, zone: string): Promise<void> {
  interface OldState {
    readonly id: number;
    readonly muster: unknown;
    readonly label: string;
    readonly at: Date;
  }
  const old = (await transaction.table('states').toArray()) as OldState[];
  const states: KeptState[] = [];
  for (const { id, muster, label, at } of old) {
    const text = JSON.stringify(fromFirstFormat(muster, zone));
    await transaction.table('texts').add({ id, text });
    states.push({
      id,
      of: FIRST,
      label,
      at: instantOf(at),
      tab: '',
      base: 0,
      touches: [],
      size: text.length,
    });
  }
  await transaction.table('states').clear();
  await transaction.table('states').bulkAdd(states);
  const current = (await transaction.table('settings').get('current')) as KeptSetting | undefined;
  const newest = states.find((s) => String(s.id) === current?.value) ?? states[states.length - 1];
  if (newest) {
    const { muster } = old.find((s) => s.id === newest.id)!;
    const name = (muster as { name?: unknown } | null)?.name;
    await transaction.table('musters').add({
      id: FIRST,
      name: typeof name === 'string' && name !== '' ? name : 'Muster',
      current: newest.id,
      revision: 1,
      changedAt: newest.at,
      isArchived: false,
      binnedAt: null,
    } satisfies KeptMuster);
  }
  const log = (await transaction.table('log').toArray()) as LogEntry[];
  await transaction.table('entries').bulkAdd(
    log.map((e): KeptEntry => ({
      of: FIRST,
      id: e.id,
      kind: e.kind,
      entry: fromFirstLog(e, zone) as LogEntry,
    })),
  );
  await transaction.table('log').clear();
  await transaction.table('plans').clear();
}
