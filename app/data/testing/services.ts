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
import { CORES, NEW_ID, NOW, TAB, WANTS_DEMO, ZONE } from '../environment';
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

/**
 * A tab of the browser: what another tab kept is there. Ready when all has been read.
 * @param prepare may make the database fail before anything is read
 */
export async function openTab(
  time: Date,
  prepare: (database: Database) => unknown = () => undefined,
  zone = 'UTC',
  openDesk: OpenDesk = noDesk,
  wantsDemo = true,
): Promise<TestTab> {
  const tab = { time };
  const rehearsal = signal<ReturnType<BenchClock['rehearsal']>>(null);
  const clock: Pick<BenchClock, 'read' | 'rehearsal' | 'rehearse' | 'backToReal' | 'rehearsalEnded'> = {
    read: () => tab.time,
    rehearsal,
    rehearse: (at) => rehearsal.set({ from: at.getTime(), realFrom: at.getTime(), speed: 1 }),
    backToReal() {
      rehearsal.set(null);
      clock.rehearsalEnded.next();
    },
    rehearsalEnded: new Subject<void>(),
  };
  const own = <T>(type: Type<T>): { provide: Type<T>; deps: [] } & { useClass: Type<T> } => ({
    provide: type,
    useClass: type,
    deps: [],
  });
  const injector = Injector.create({
    providers: [
      { provide: BenchClock, useValue: clock },
      { provide: NOW, useValue: () => tab.time },
      { provide: ZONE, useValue: zone },
      { provide: CORES, useValue: 2 },
      { provide: WANTS_DEMO, useValue: wantsDemo },
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
  const services = {
    store: injector.get(MusterStore),
    logbook: injector.get(Logbook),
    database: injector.get(Database),
    notices: injector.get(Notices),
    keeping: injector.get(Keeping),
    refusals: injector.get(Refusals),
    concerns: injector.get(Concerns),
    clock: injector.get(BenchClock),
    close: () => injector.destroy(),
  };
  await services.store.ready();
  await services.logbook.ready;
  return Object.defineProperty(Object.assign(tab, services), 'planner', {
    get: () => injector.get(Planner),
  }) as TestTab;
}
