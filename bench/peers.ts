/**
 * Figures of peers on the published instances, to set ours beside: a native search (C++, one core) at several times, the simple
 * greedy plan (earliest due date first, first fit), and proved or published optima (ft06, ft10: Fisher & Thompson 1963;
 * la01: Lawrence 1984; the tiny ones: a general constraint solver).
 */
export interface Peer {
  readonly seconds: number;
  readonly native?: number;
  readonly nativeSeconds?: number;
  readonly greedy: number;
  readonly optimum?: number;
}

export const PEERS: Readonly<Record<string, Peer>> = {
  'tiny-01': { seconds: 2, greedy: 528_206.68, optimum: 393_665.54 },
  'tiny-02': { seconds: 2, greedy: 31.44, optimum: 31.44 },
  'tiny-03': { seconds: 2, greedy: 120_319.38, optimum: 120_312.38 },
  'tiny-04': { seconds: 2, greedy: 78_070.92, optimum: 73_370.45 },
  'tiny-05': { seconds: 2, greedy: 28_250.52, optimum: 12_245.68 },
  'tiny-06': { seconds: 2, greedy: 95.84, optimum: 95.84 },
  'tiny-07': { seconds: 2, greedy: 322_250.4, optimum: 319_650.14 },
  'tiny-08': { seconds: 2, greedy: 120_147.4, optimum: 120_147.4 },
  'tiny-09': { seconds: 2, greedy: 18_127.99, optimum: 18_127.99 },
  'tiny-10': { seconds: 2, greedy: 30_345.24, optimum: 27_142.6 },
  'jobshop-ft06': { seconds: 2, greedy: 94, optimum: 55 },
  'jobshop-la01': { seconds: 2, greedy: 1210, optimum: 666 },
  'jobshop-ft10': { seconds: 10, greedy: 1530, optimum: 930 },
  'batch-60-1': { seconds: 5, native: 1965.22, nativeSeconds: 20, greedy: 1_585_756.53 },
  'soft-60-1': { seconds: 5, greedy: 1_585_756.53 },
  'batch-200-1': { seconds: 5, native: 2981.72, nativeSeconds: 20, greedy: 489_388.56 },
  'batch-600-1': { seconds: 5, native: 26_601.12, nativeSeconds: 5, greedy: 2_944_227.37 },
  'batch-2000-1': { seconds: 20, native: 102_851.45, nativeSeconds: 20, greedy: 515_463.58 },
  'batch-10000-1': { seconds: 60, native: 742_041.25, nativeSeconds: 60, greedy: 5_457_936.84 },
};
