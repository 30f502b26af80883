/** Words that this program uses in a sense of its own, each with a small drawing. */

interface Part {
  readonly d: string;
  readonly fill?: string;
  readonly stroke?: string;
}

export interface Word {
  readonly word: string;
  readonly means: string;
  /** paths in a field of 96 by 48; colours are roles of the theme */
  readonly drawing: readonly Part[];
}

const INK = 'var(--ink)';
const LAMP = 'var(--lamp)';
const OPEN = 'var(--open)';
const SHUT = 'var(--shut)';
const WET = 'var(--wet)';
const LINE = 'var(--line)';

export const WORDS: readonly Word[] = [
  {
    word: 'run',
    means:
      'Everything that is done with one load of the airbrush or one laid-out brush, over as many pieces and units as wait for it.',
    drawing: [
      { d: 'M4 14h20v20h-20zM28 14h20v20h-20zM52 14h20v20h-20z', fill: LAMP },
      { d: 'M2 40h74', stroke: INK },
    ],
  },
  {
    word: 'gate',
    means:
      'The time in which the next layer must go on: it opens when the paint bears it, and shuts when it is too late.',
    drawing: [
      { d: 'M4 40V16q12 20 88 24z', fill: WET },
      { d: 'M34 42V10h6M66 42V10h-6', stroke: OPEN },
    ],
  },
  {
    word: 'wave',
    means: 'As many pieces as can follow one another through a gate before it shuts on the first of them.',
    drawing: [
      { d: 'M6 10h14v8h-14zM14 22h14v8h-14zM22 34h14v8h-14z', fill: LAMP },
      { d: 'M44 10h14v8h-14zM52 22h14v8h-14zM60 34h14v8h-14z', fill: OPEN },
    ],
  },
  {
    word: 'session to spare',
    means:
      'An evening at the bench that is still left between the day a unit is ready and the day it must be on the table.',
    drawing: [
      { d: 'M4 12h18v24h-18zM26 12h18v24h-18z', fill: LAMP },
      { d: 'M48 12h18v24h-18z', stroke: OPEN },
      { d: 'M80 8v32M80 8h12l-4 5 4 5h-12', stroke: INK },
    ],
  },
  {
    word: 'pilot',
    means:
      'The piece of a batch that goes ahead. The others wait with the layers that are marked so until it has been judged.',
    drawing: [
      { d: 'M62 10h26v26h-26z', fill: OPEN },
      { d: 'M6 18h14v14h-14zM26 18h14v14h-14z', stroke: LINE },
      { d: 'M44 25h12M52 20l5 5-5 5', stroke: INK },
    ],
  },
  {
    word: 'level',
    means:
      'A place in a recipe at which a piece could stop, whole and sealed: 1 table-ready, 2 weathered, 3 all of it.',
    drawing: [
      { d: 'M20 34h40v6h-40zM20 26h40v6h-40z', fill: LAMP },
      { d: 'M20 18h40v6h-40zM20 10h40v6h-40z', fill: LINE },
      { d: 'M66 25h22', stroke: OPEN },
    ],
  },
  {
    word: 'tide',
    means:
      'How wet a piece still is, drawn as a level that falls: plain while wet, hatched while workable, dotted when nearly dry.',
    drawing: [
      { d: 'M4 40V12q20 24 88 28z', fill: WET },
      { d: 'M2 41h92', stroke: INK },
    ],
  },
  {
    word: 'window',
    means:
      'What a recipe says about a gate: no sooner than, better by, no later than; in minutes at 21 °C and 50 % air.',
    drawing: [
      { d: 'M20 12h56v24h-56z', stroke: OPEN },
      { d: 'M58 12h18v24h-18z', fill: SHUT },
    ],
  },
  {
    word: 'school',
    means:
      'A way of doing things in which practitioners differ. The rules of a recipe follow the one that you choose.',
    drawing: [
      { d: 'M10 40q10-32 34-32', stroke: LAMP },
      { d: 'M86 40q-10-32-34-32', stroke: OPEN },
    ],
  },
  {
    word: 'host and part',
    means:
      'A part is painted apart and joined late; it is glued once its host is ready for it, before the layer that goes over both.',
    drawing: [
      { d: 'M8 28h80v12h-80z', fill: LAMP },
      { d: 'M34 8h28v12h-28z', fill: OPEN },
      { d: 'M48 21v6', stroke: INK },
    ],
  },
];
