/** Pieces are dealt and briefed by a worker that lives as long as a unit is looked at. */
import { InjectionToken } from '@angular/core';
import { wrap } from 'comlink';
import type { Unit } from '#core/muster';
import type { Brief, briefsOf } from '#core/variety';
import type { dealUnit, Variety, varietyOf } from '../workers/variety.worker';

export type { Variety };

export interface VarietyDesk {
  tell(...args: Parameters<typeof varietyOf>): Promise<Variety>;
  deal(...args: Parameters<typeof dealUnit>): Promise<Unit | null>;
  brief(...args: Parameters<typeof briefsOf>): Promise<Brief[]>;
  close(): void;
}

export const OPEN_VARIETY = new InjectionToken<() => VarietyDesk>('desk where variety is dealt', {
  factory: () => () => {
    const worker = new Worker(new URL('../workers/variety.worker', import.meta.url), { type: 'module' });
    const remote = wrap<{
      varietyOf: VarietyDesk['tell'];
      dealUnit: VarietyDesk['deal'];
      briefsOf: VarietyDesk['brief'];
    }>(worker);
    return {
      tell: (...args) => Promise.resolve(remote.varietyOf(...args)),
      deal: (...args) => Promise.resolve(remote.dealUnit(...args)),
      brief: (...args) => Promise.resolve(remote.briefsOf(...args)),
      close: () => worker.terminate(),
    };
  },
});
