/** The services of the app without the app: on an IndexedDB in memory, with a clock and ids that tests hold. */
import '@angular/compiler';
import { Injector, signal, type Type } from '@angular/core';
import Dexie from 'dexie';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { Subject } from 'rxjs';
import { readLogFile } from '#core/log';
import { BenchClock } from '../benchClock';
import { Concerns } from '../concerns';
import { Database } from '../database';
import { OPEN_DESK, type OpenDesk } from '../desk';
import { CORES, NEW_ID, NOW, PLANNING_PAUSE_MS, TAB, WANTS_DEMO, ZONE } from '../environment';
import { Keeping } from '../keeping';
import { Logbook } from '../logbook';
import { MusterStore } from '../musterStore';
import { Notices } from '../notices';
import { Planner } from '../planner';
import { READ_LOG } from '../reading';
import { Refusals } from '../refusals';

export interface TestTab {
  readonly store: MusterStore;
  readonly logbook: Logbook;
  readonly database: Database;
  readonly notices: Notices;
  readonly keeping: Keeping;
  readonly refusals: Refusals;
  readonly concerns: Concerns;
  readonly clock: BenchClock;
  /** begins to plan when it is first asked for */
  readonly planner: Planner;
  /** of the services above, for those of a view that stand on them */
  readonly injector: Injector;
  /** closes the tab: its timers and subscriptions end */
  close(): void;
  /** the moment that the tab takes it to be; may be moved */
  time: Date;
}

/** A browser that has kept nothing yet; tabs that are open stay with the old one. */
export function emptyBrowser(): void {
  Dexie.dependencies.indexedDB = new IDBFactory();
  Dexie.dependencies.IDBKeyRange = IDBKeyRange;
}

const noDesk: OpenDesk = () => {
  throw new Error('This test has no planning desk.');
};

let ids = 0;
let tabs = 0;

/** What of a tab is not as usual. */
export interface TabOptions {
  /** the machine's time zone */
  readonly zone?: string;
  readonly openDesk?: OpenDesk;
  readonly wantsDemo?: boolean;
  readonly planningPauseMs?: number;
  /** may make the database fail before anything is read */
  readonly prepare?: (database: Database) => unknown;
}

/** A provider of a service that is made from its class. */
export function own<T>(type: Type<T>): { provide: Type<T>; deps: []; useClass: Type<T> } {
  return { provide: type, useClass: type, deps: [] };
}

/** A tab of the browser: what another tab kept is there. Ready when all has been read. */
export async function openTab(
  time: Date,
  {
    zone = 'UTC',
    openDesk = noDesk,
    wantsDemo = true,
    planningPauseMs = 350,
    prepare = () => undefined,
  }: TabOptions = {},
): Promise<TestTab> {
  const now = signal(time);
  const rehearsal = signal<ReturnType<BenchClock['rehearsal']>>(null);
  const clock: Pick<BenchClock, 'now' | 'read' | 'rehearsal' | 'rehearse' | 'backToReal' | 'rehearsalEnded'> =
    {
      now,
      read: () => now(),
      rehearsal,
      rehearse: (at) => rehearsal.set({ from: at.getTime(), realFrom: at.getTime(), speed: 1 }),
      backToReal() {
        rehearsal.set(null);
        clock.rehearsalEnded.next();
      },
      rehearsalEnded: new Subject<void>(),
    };
  const injector = Injector.create({
    providers: [
      { provide: BenchClock, useValue: clock },
      { provide: NOW, useValue: () => now() },
      { provide: ZONE, useValue: zone },
      { provide: CORES, useValue: 2 },
      { provide: WANTS_DEMO, useValue: wantsDemo },
      { provide: PLANNING_PAUSE_MS, useValue: planningPauseMs },
      { provide: TAB, useValue: `tab${++tabs}` },
      { provide: NEW_ID, useValue: () => `id${++ids}` },
      own(Keeping),
      own(Notices),
      own(Refusals),
      own(Database),
      own(MusterStore),
      own(Logbook),
      own(Concerns),
      {
        provide: READ_LOG,
        useValue: async (...args: Parameters<typeof readLogFile>) => Promise.resolve(readLogFile(...args)),
      },
      { provide: OPEN_DESK, useValue: openDesk },
      own(Planner),
    ],
  });
  prepare(injector.get(Database));
  const tab: TestTab = {
    store: injector.get(MusterStore),
    logbook: injector.get(Logbook),
    database: injector.get(Database),
    notices: injector.get(Notices),
    keeping: injector.get(Keeping),
    refusals: injector.get(Refusals),
    concerns: injector.get(Concerns),
    clock: injector.get(BenchClock),
    get planner() {
      return injector.get(Planner);
    },
    injector,
    close: () => injector.destroy(),
    get time() {
      return now();
    },
    set time(at) {
      now.set(at);
    },
  };
  await tab.store.ready();
  await tab.logbook.ready;
  return tab;
}
