/** Long lists are read by a worker that lives as long as one is looked at. */
import { InjectionToken } from '@angular/core';
import { wrap } from 'comlink';
import type { Column, Known } from '#core/entry';
import type { ReadList } from '../workers/reading.worker';

export interface Reader {
  read(text: string, known: Known, columns: readonly Column[] | null): Promise<ReadList>;
  close(): void;
}

export const OPEN_READER = new InjectionToken<() => Reader>('reader of lists', {
  factory: () => () => {
    const worker = new Worker(new URL('../workers/reading.worker', import.meta.url), { type: 'module' });
    const remote = wrap<{ readList: Reader['read'] }>(worker);
    return {
      read: (text, known, columns) => Promise.resolve(remote.readList(text, known, columns)),
      close: () => worker.terminate(),
    };
  },
});
