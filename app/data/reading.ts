/** Long lists are read by a worker that lives as long as one is looked at. */
import { InjectionToken } from '@angular/core';
import { wrap } from 'comlink';
import type { Column, Known } from '#core/entry';
import type { Busy, readBusy } from '#core/exchange';
import type { Admitted } from '#core/muster';
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
