/** What the browser keeps (IndexedDB): the muster with its undo history, and the newest plan. */
import { inject, Injectable } from '@angular/core';
import Dexie, { type Table } from 'dexie';
import type { Solution } from '#core/kernel';
import type { Muster } from '#core/muster';
import type { LogEntry } from '#core/session';
import { NOW } from './environment';

/** One state of the muster; states in order of `id` are the undo history. */
export interface KeptState {
  readonly id?: number;
  readonly muster: Muster;
  /** what led to it, in words */
  readonly label: string;
  readonly at: Date;
}

export interface KeptPlan {
  readonly id: 'newest';
  /** the muster it was made for, as text, so that a stale plan is never shown for a changed muster */
  readonly musterText: string;
  readonly solution: Solution;
  /** lateness of the naive order, null where it has none that ends */
  readonly naiveLateMinutes: number | null;
}

interface KeptSetting {
  readonly key: string;
  readonly value: string;
}

/** States kept for undo. */
const HISTORY = 60;

class MusterDatabase extends Dexie {
  readonly states!: Table<KeptState, number>;
  readonly plans!: Table<KeptPlan, string>;
  readonly settings!: Table<KeptSetting, string>;
  readonly log!: Table<LogEntry, string>;

  constructor() {
    super('patient-muster');
    this.version(1).stores({ states: '++id', plans: 'id', settings: 'key' });
    this.version(2).stores({ log: 'id, at' });
  }
}

@Injectable({ providedIn: 'root' })
export class Database {
  private readonly db = new MusterDatabase();
  private readonly now = inject(NOW);

  /** The history and which of its states is the current one; null where nothing was ever kept. */
  async load(): Promise<{ states: KeptState[]; current: number } | null> {
    const states = await this.db.states.orderBy('id').toArray();
    if (states.length === 0) return null;
    const kept = await this.db.settings.get('current');
    const at = states.findIndex((s) => String(s.id) === kept?.value);
    return { states, current: at < 0 ? states.length - 1 : at };
  }

  /** Adds a state after `afterId`, drops what was undone beyond it, and forgets the oldest. All or nothing. */
  async add(muster: Muster, label: string, afterId: number | null): Promise<KeptState> {
    return this.db.transaction('rw', this.db.states, this.db.settings, async () => {
      if (afterId !== null) await this.db.states.where('id').above(afterId).delete();
      const state: KeptState = { muster, label, at: this.now() };
      const id = await this.db.states.add(state);
      await this.db.settings.put({ key: 'current', value: String(id) });
      const count = await this.db.states.count();
      if (count > HISTORY) {
        const oldest = await this.db.states
          .orderBy('id')
          .limit(count - HISTORY)
          .primaryKeys();
        await this.db.states.bulkDelete(oldest);
      }
      return { ...state, id };
    });
  }

  async setCurrent(id: number): Promise<void> {
    await this.db.settings.put({ key: 'current', value: String(id) });
  }

  async keepPlan(plan: Omit<KeptPlan, 'id'>): Promise<void> {
    await this.db.plans.put({ id: 'newest', ...plan });
  }

  async newestPlan(): Promise<KeptPlan | undefined> {
    return this.db.plans.get('newest');
  }

  async readLog(): Promise<LogEntry[]> {
    return this.db.log.orderBy('at').toArray();
  }

  /** Adds entries; those already there stay as they are. */
  async addToLog(entries: readonly LogEntry[]): Promise<void> {
    await this.db.transaction('rw', this.db.log, async () => {
      for (const e of entries) if (!(await this.db.log.get(e.id))) await this.db.log.add(e);
    });
  }

  async setting(key: string): Promise<string | undefined> {
    return (await this.db.settings.get(key))?.value;
  }

  async keepSetting(key: string, value: string): Promise<void> {
    await this.db.settings.put({ key, value });
  }
}
