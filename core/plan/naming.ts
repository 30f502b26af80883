/** What the resources and calendars of a compiled problem are called, wherever one is spoken of. */
import { HANDS, SKILLED } from './hands';
import { SHUNNED } from './pins';
import { AIRBRUSH, BOOTH, CABINET, COMPRESSOR } from './tools';

/** The hours and the room outdoors. */
export const OUTDOORS = 'outdoors';

interface Words {
  /** `the rack` */
  readonly name: string;
  /** what it would be to have as much of it as one could wish */
  readonly plenty: string;
  /** what it is when there is no more of it to be had for a while */
  readonly taken: string;
}

const HANDLE = 'handle-';
/** One of several people's hands. */
const LANE = `${HANDS}-`;

const RESOURCES: Readonly<Record<string, Words>> = {
  hands: {
    name: 'hands',
    plenty: 'with as many hands as one could wish',
    taken: 'Hands are busy',
  },
  [SKILLED]: {
    name: 'hands that may do everything',
    plenty: 'with as many hands that may do everything as one could wish',
    taken: 'Those who may do it are busy',
  },
  [AIRBRUSH]: {
    name: 'the airbrush',
    plenty: 'with an airbrush for every colour, always loaded',
    taken: 'The airbrush and hands are busy',
  },
  [BOOTH]: { name: 'the booth', plenty: 'with room for all in the booth', taken: 'The booth is taken' },
  table: {
    name: 'the table',
    plenty: 'without laying out anew between jobs by hand',
    taken: 'Hands are busy',
  },
  rack: {
    name: 'the drying rack',
    plenty: 'with room for everything on the rack',
    taken: 'The rack is full',
  },
  [CABINET]: {
    name: 'the drying cabinet',
    plenty: 'with room for everything in the drying cabinet',
    taken: 'The drying cabinet is full',
  },
  [HANDLE]: {
    name: 'handles of its size',
    plenty: 'with a handle for every piece',
    taken: 'All handles of its size are in use',
  },
  air: {
    name: 'the air of the bench',
    plenty: 'with dust and wet coats in rooms of their own',
    taken: 'The air of the bench is not clean, or is not to be dirtied,',
  },
};
const ELSE: Words = {
  name: 'hours of one kind',
  plenty: 'with more at a time in the same hours',
  taken: 'It is taken',
};

const KINDS = [
  [`${AIRBRUSH}-`, AIRBRUSH],
  [HANDLE, HANDLE],
  [LANE, HANDS],
] as const;

/** Words for a resource by its id, or by what its id begins with. */
export function wordsOf(resource: string): Words {
  const kind = KINDS.find(([stem]) => resource.startsWith(stem))?.[1] ?? resource;
  return RESOURCES[resource] ?? RESOURCES[kind] ?? ELSE;
}

/** `the sessions` */
export function calendarName(calendar: string): string {
  if (calendar === 'sessions') return 'the sessions';
  if (calendar.startsWith(LANE)) return 'the hours of one of you';
  if (calendar === SKILLED) return 'the hours of those who may do everything';
  if (calendar === COMPRESSOR) return 'the hours in which the compressor may run';
  if (calendar === OUTDOORS) return 'the daylight';
  if (calendar.startsWith(SHUNNED)) return 'the sessions that you have left to it';
  return 'which the air is fit';
}

/** Does a resource stand for the hands of one of several people? */
export const isLane = (resource: string | undefined): boolean => resource?.startsWith(LANE) ?? false;

/** What it would be to have a calendar always open. */
export function alwaysOpen(calendar: string): string {
  if (calendar === 'sessions') return 'with the bench open day and night';
  if (calendar.startsWith(LANE)) return 'with one of you there day and night';
  if (calendar === SKILLED) return 'with those who may do everything there day and night';
  if (calendar === COMPRESSOR) return 'without quiet hours for the compressor';
  if (calendar === OUTDOORS) return 'if outdoors it were always light';
  if (calendar.startsWith(SHUNNED)) return 'in the session that you have taken from it';
  return 'in air that is fit for paint at every hour';
}
