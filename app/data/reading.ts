/** Long lists are read by a worker that lives as long as one is looked at. */
import { InjectionToken } from '@angular/core';
import { wrap } from 'comlink';
import type { Column, Known } from '#core/entry';
import type { Busy, readBusy } from '#core/exchange';
import type { Admitted } from '#core/muster';
import type { readLogFile } from '#core/log';
import type { makeDrafts, ReadList } from '../workers/reading.worker';

export interface Reader {
  read(text: string, known: Known, columns: readonly Column[] | null): Promise<ReadList>;
  readBusy: (...args: Parameters<typeof readBusy>) => Promise<Busy>;
  make: (...args: Parameters<typeof makeDrafts>) => Promise<Admitted>;
  close(): void;
}

export const OPEN_READER = new InjectionToken<() => Reader>('reader of lists', {
  factory: () => () => {
    const worker = new Worker(new URL('../workers/reading.worker', import.meta.url), { type: 'module' });
    const remote = wrap<{
      readList: Reader['read'];
      readBusy: Reader['readBusy'];
      makeDrafts: Reader['make'];
    }>(worker);
    return {
      read: (text, known, columns) => Promise.resolve(remote.readList(text, known, columns)),
      readBusy: (...args) => Promise.resolve(remote.readBusy(...args)),
      make: (...args) => Promise.resolve(remote.makeDrafts(...args)),
      close: () => worker.terminate(),
    };
  },
});

type ReadLog = (...args: Parameters<typeof readLogFile>) => Promise<ReturnType<typeof readLogFile>>;

/** Reads the text of a log away from the page; the worker ends with it. */
export const READ_LOG = new InjectionToken<ReadLog>('reader of logs', {
  factory:
    () =>
    (...args) => {
      const worker = new Worker(new URL('../workers/log.worker', import.meta.url), { type: 'module' });
      const remote = wrap<{ readLogFile: ReadLog }>(worker);
      return Promise.resolve(remote.readLogFile(...args)).finally(() => worker.terminate());
    },
});
