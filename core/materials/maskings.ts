/** What one masks with, and what it does to paint. Common practice, no source. */
export const MASKING_IDS = ['tape', 'putty', 'liquid', 'stencil', 'paper', 'salt'] as const;
export type MaskingId = (typeof MASKING_IDS)[number];

export interface Masking {
  readonly name: string;
  /** it lies in spots: what goes over it comes through beside them, on zones that it names as on all */
  readonly isInSpots?: true;
  /** it holds by sticking: paint too young, or one that never holds, comes off with it */
  readonly sticks: boolean;
  /** drying minutes of what goes over it for which it may stay; null: as long as one likes */
  readonly staysMinutes: number | null;
  /** what happens then */
  readonly afterwards: string;
  /** minutes that it must dry itself before anything goes over it */
  readonly driesMinutes: number;
  /** what is laid out for it */
  readonly tools: string;
  readonly isCut: boolean;
}

const TEARS = 'The mask stays on until the paint has hardened: the edge tears.';

const LIST: Readonly<Record<MaskingId, Masking>> = {
  tape: {
    name: 'tape or film',
    sticks: true,
    staysMinutes: 720,
    afterwards: TEARS,
    driesMinutes: 0,
    tools: 'Tape and a fresh blade',
    isCut: true,
  },
  putty: {
    name: 'putty',
    sticks: false,
    staysMinutes: null,
    afterwards: '',
    driesMinutes: 0,
    tools: 'Masking putty, a wetted stick to press it on',
    isCut: false,
  },
  liquid: {
    name: 'liquid mask',
    sticks: true,
    staysMinutes: 720,
    afterwards: TEARS,
    driesMinutes: 15,
    tools: 'Liquid mask, an old brush and soap for it',
    isCut: false,
  },
  stencil: {
    name: 'loose stencil',
    sticks: false,
    staysMinutes: 60,
    afterwards: 'A loose stencil moves while it lies there, and drags wet paint with it.',
    driesMinutes: 0,
    tools: 'Stencil, something to hold it down',
    isCut: true,
  },
  paper: {
    name: 'paper edge',
    sticks: false,
    staysMinutes: 60,
    afterwards: 'A paper edge held off the surface goes soft with paint and sags.',
    driesMinutes: 0,
    tools: 'Paper torn or cut to the edge',
    isCut: true,
  },
  salt: {
    name: 'salt',
    isInSpots: true,
    sticks: false,
    staysMinutes: null,
    afterwards: '',
    driesMinutes: 0,
    tools: 'Salt, water, a soft brush',
    isCut: false,
  },
};

/** The facts of what one masks with. */
export function maskingFacts(id: MaskingId): Masking {
  return LIST[id];
}
