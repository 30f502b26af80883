/** The muster: everything the user owns, in one document (docs/formats.md). Types are derived from the schemas. */
import * as z from 'zod';
import { AIDS, FAMILY_IDS, FILMS, MASKING_IDS, METHOD_IDS, REACHES } from '#core/materials';
import {
  DATE_PATTERN,
  DATE_TIME_PATTERN,
  INSTANT_PATTERN,
  isRealDate,
  isTimeZone,
  TIME_PATTERN,
} from './localTime';

export const MUSTER_FORMAT = 'patient-muster/2';

const id = z.string().min(1).max(80);
export const NAME_LETTERS = 120;
const name = z
  .string()
  .trim()
  .min(1, 'needs a name')
  .max(NAME_LETTERS, `has more than ${NAME_LETTERS} letters`);
/** The longest text of a mixture: four products of the longest names, and their ratio. */
export const MIXTURE_LETTERS = 600;
const mixture = z.string().max(MIXTURE_LETTERS);
const date = z
  .string()
  .regex(DATE_PATTERN, 'is no date from 2000 to 2199 (YYYY-MM-DD)')
  .refine(isRealDate, 'is no day of the calendar');
const dateTime = z
  .string()
  .regex(DATE_TIME_PATTERN, 'is no date and time from 2000 to 2199 (YYYY-MM-DDTHH:mm)')
  .refine(isRealDate, 'is no day of the calendar');
const instant = z
  .string()
  .regex(INSTANT_PATTERN, 'is no instant from 2000 to 2199 (YYYY-MM-DDTHH:mm:ssZ)')
  .refine(isRealDate, 'is no day of the calendar');
const time = z.string().regex(TIME_PATTERN, 'is no time (HH:mm)');
const minutes = z
  .number()
  .min(0)
  .max(60 * 24 * 60);
const colour = z.string().regex(/^#[0-9a-f]{6}$/, 'is no colour (#rrggbb)');
const air = z.strictObject({
  celsius: z.number().min(-10).max(45),
  humidityPercent: z.number().min(1).max(99),
});

export const sessionSchema = z.strictObject({ from: time, to: time });

/** A helper may do everything, or only what needs no blade, no solvent and no spraying. */
export const ABILITIES = ['all', 'careful'] as const;
export type Ability = (typeof ABILITIES)[number];

export const daysAwaySchema = z.strictObject({ id, from: date, to: date });

export const personSchema = z.strictObject({
  id,
  name,
  /** without it: all */
  may: z.enum(ABILITIES).optional(),
  /** own hours by weekday (1 = Monday), as far as the bench is lit; none given: whenever it is */
  hours: z.array(z.strictObject({ id, weekday: z.int().min(1).max(7), from: time, to: time })).optional(),
  away: z.array(daysAwaySchema).optional(),
});

/** Which layers an airbrush is for; without a nozzle that a layer asks for, its role decides. */
export const AIRBRUSH_ROLES = ['any', 'primer', 'colour', 'metal', 'varnish'] as const;
export type AirbrushRole = (typeof AIRBRUSH_ROLES)[number];

const airbrushMinutes = {
  /** putting the first colour into a clean airbrush */
  loadMinutes: z.int().min(0).max(240),
  /** from one colour to the next */
  changeMinutes: z.int().min(0).max(240),
  /** after primer, metal, varnish, medium or solvent, and to another colour */
  cleanMinutes: z.int().min(0).max(240),
  /** left loaded for longer, it must be cleaned and loaded anew */
  idleMinutes: z.int().min(0).max(10_000),
  nozzleMm: z.number().gt(0).max(2).optional(),
};

export const SIZE_CLASSES = ['figure', 'mounted', 'small', 'craft', 'large', 'base'] as const;
export type SizeClass = (typeof SIZE_CLASSES)[number];

/** What a plan wishes for once every date is kept: to be done early, or few and long runs; without a choice, both. */
export const WISHES = ['early', 'balanced', 'quiet'] as const;
export type Wish = (typeof WISHES)[number];

export const benchSchema = z.strictObject({
  /** IANA name of the zone by whose wall clock its times are meant */
  timeZone: z.string().max(80).refine(isTimeZone, 'is no time zone (such as Europe/Vienna or UTC)'),
  people: z.array(personSchema),
  airbrush: z.strictObject(airbrushMinutes),
  /** false: what this bench has taught is shown, and not planned with */
  usesLessons: z.boolean().optional(),
  /** false: there is none, and everything is put on by brush, can or hand */
  hasAirbrush: z.boolean().optional(),
  moreAirbrushes: z
    .array(z.strictObject({ id, name, role: z.enum(AIRBRUSH_ROLES), ...airbrushMinutes }))
    .max(20)
    .optional(),
  /** how many may spray at a time; without it as many as there are airbrushes */
  boothPlaces: z.int().min(1).max(20).optional(),
  /** handles or clips for pieces of a size: so many can be in work at a time; without a number enough */
  handles: z.partialRecord(z.enum(SIZE_CLASSES), z.int().min(0).max(10_000)).optional(),
  /** a warm dry box for layers that allow it */
  cabinet: z
    .strictObject({
      places: z.int().min(1).max(10_000),
      celsius: z.number().min(10).max(60),
      humidityPercent: z.number().min(5).max(90),
    })
    .optional(),
  /** no compressor between these times, every day; past midnight where `to` is not after `from` */
  quiet: z.array(z.strictObject({ id, from: time, to: time })).optional(),
  /** dates on which the bench stays shut, both included */
  away: z.array(daysAwaySchema).optional(),
  /** where the bench stands, for the hours of daylight; degrees, north and east positive */
  place: z
    .strictObject({ latitude: z.number().min(-90).max(90), longitude: z.number().min(-180).max(180) })
    .optional(),
  /** laying out brushes, palette or cloths for another job by hand; counted where one person works */
  layoutMinutes: z.int().min(0).max(240),
  rackPlaces: z.int().min(1).max(10_000),
  /** weekday 1 = Monday … 7 = Sunday */
  weekly: z.array(z.strictObject({ id, weekday: z.int().min(1).max(7), from: time, to: time })),
  /** a date whose sessions differ from the week's; none at all: the bench stays shut */
  exceptions: z.array(z.strictObject({ id, date, sessions: z.array(sessionSchema) })),
  climate: z.strictObject({
    day: air,
    night: air,
    dayFrom: time,
    nightFrom: time,
    /** January to December: what is added to day and night in that month */
    months: z
      .array(
        z.strictObject({
          celsius: z.number().min(-30).max(30),
          humidityPercent: z.number().min(-60).max(60),
        }),
      )
      .length(12)
      .optional(),
  }),
  /** air measured or forecast, by the hour; between and beyond, the day-and-night climate holds */
  readings: z
    .array(
      z.strictObject({
        at: instant,
        celsius: z.number().min(-30).max(60),
        humidityPercent: z.number().min(1).max(100),
      }),
    )
    .optional(),
  /** what one airbrush cup holds, millilitres; without it 7 */
  cupMl: z.number().min(0.5).max(200).optional(),
  /** spraying draws off to the outside; without it no lacquer and no can indoors */
  hasExtraction: z.boolean().optional(),
  wish: z.enum(WISHES).optional(),
  /** share of the evenings on which nobody comes; without it one in six */
  lostEvenings: z.number().min(0).max(0.9).optional(),
});

export const windowSchema = z.strictObject({
  /** the next layer starts no sooner than so many drying minutes after this one */
  opensMinutes: minutes.nullable(),
  /** … and no later than; a hard window */
  closesMinutes: minutes.nullable(),
  /** … and better by: each further minute costs rubbing and result */
  preferMinutes: minutes.nullable(),
  /** last layer that has to start within the window; null: just the next one */
  through: id.nullable(),
});

/** What a layer is for the rules, where its family does not say it. */
export const TASKS = [
  'coat',
  'lift',
  'wipe',
  'mask',
  'putty',
  'unmask',
  'glue',
  'bare',
  'decal',
  'softener',
  'rinse',
  'polish',
  'spatter',
] as const;
export type Task = (typeof TASKS)[number];

export const SHEENS = ['matt', 'satin', 'gloss', 'metal', 'wet'] as const;
export type Sheen = (typeof SHEENS)[number];

export const substituteSchema = z.strictObject({
  name,
  family: z.enum(FAMILY_IDS),
  method: z.enum(METHOD_IDS),
  coats: z.int().min(1).max(20),
  minutes: z.number().gt(0).max(1440),
  dryMinutes: minutes,
});

/** So many parts are the most that are mixed here. */
export const MIX_PARTS = 4;
/** What a mixture is made of: by parts of the volume. */
export const madeOfSchema = z.strictObject({
  parts: z
    .array(
      z.strictObject({
        id,
        /** on the shelf; without it water, thinner, or what has yet to be bought */
        product: id.optional(),
        /** as its bottle says: kept like the product's own name */
        name,
        parts: z.number().gt(0, 'needs more than 0 parts').max(1000),
      }),
    )
    .min(1, 'needs a part')
    .max(MIX_PARTS, `has more than ${MIX_PARTS} parts`),
  /** mixed by eye to this (a swatch, a picture): the parts are only about right */
  target: name.optional(),
});

/** Where a figure comes from when it is not the nominal one, and what the nominal one was. */
export const estimateSchema = z.strictObject({
  source: z.enum(['yours', 'learned']),
  nominalMinutes: minutes,
  /** so many looks or measured pieces it was learned from */
  learnedFrom: z.int().min(1).max(100_000).optional(),
});

export const layerSchema = z.strictObject({
  id,
  name,
  colour,
  family: z.enum(FAMILY_IDS),
  method: z.enum(METHOD_IDS),
  /** zones it goes on; empty: all of them */
  zones: z.array(id),
  /** as it is mixed and loaded, such as "cream 3:1"; airbrush changes are counted by it */
  mixture,
  /** what that is made of; its words are then made from it */
  madeOf: madeOfSchema.optional(),
  /** a second load, put on while the first is wet, and run into it */
  wetWith: z.string().trim().min(1, 'needs a mixture').max(MIXTURE_LETTERS).optional(),
  coats: z.int().min(1).max(20),
  /** hands-on minutes a piece and a coat */
  minutes: z.number().gt(0, 'needs more than 0 minutes').max(1440),
  minutesFrom: estimateSchema.optional(),
  /** drying until the next layer may go on, at 21 °C and 50 % */
  dryMinutes: minutes,
  dryFrom: estimateSchema.optional(),
  window: windowSchema.nullable(),
  /** layers of this recipe that must be on and dry before, besides those beneath it */
  waitsFor: z.array(id),
  /** may be put down at the end of a session and taken up in the next */
  pausable: z.boolean(),
  note: z.string().max(2000),
  /** what the rules take it for; without it, a coat, or plain work */
  task: z.enum(TASKS).optional(),
  /** what is masked with, of a layer that masks; without it tape */
  masking: z.enum(MASKING_IDS).optional(),
  /** how the surface looks when it is dry */
  sheen: z.enum(SHEENS).optional(),
  film: z.enum(FILMS).optional(),
  /** how much of its zones it covers, and where; without it all of them */
  reach: z.enum(REACHES).optional(),
  aid: z.enum(AIDS).optional(),
  /** repeated until it looks right: so many passes are expected, with a wait between them */
  passes: z.strictObject({ expected: z.int().min(1).max(12), waitMinutes: minutes }).optional(),
  /** face by face: this many sides up, with a wait before each turn */
  faces: z.strictObject({ count: z.int().min(1).max(8), waitMinutes: minutes }).optional(),
  /** throws dust or drops on whatever is wet nearby, or needs clean air while wet itself */
  air: z.enum(['contaminates', 'needs-clean']).optional(),
  /** another way to the same result, and whether this recipe takes it */
  substitute: substituteSchema.optional(),
  usesSubstitute: z.boolean().optional(),
  /** the piece could stop here, whole and sealed, at this finish level */
  level: z.int().min(1).max(3).optional(),
  /** deep in millimetres, for pours */
  depthMm: z.number().gt(0).max(50).optional(),
  nozzleMm: z.number().gt(0).max(2).optional(),
  /** pressure at the airbrush; without it the family's usual one */
  pressureBar: z.number().min(0.2).max(6).optional(),
  /** looks wrong on purpose until that layer is on */
  judgeFrom: id.optional(),
  /** where and by what to judge it: “at arm's length, against the left door” */
  judgeBy: name.optional(),
  /** how it can be taken back, and from which layer on no more: the point of no return */
  takenBack: z.strictObject({ by: name, until: id.nullable() }).optional(),
  /** what it is put on with: “No. 2 round”, “torn sponge” */
  applicator: name.optional(),
  /** done for the first time at this bench: tried on scrap before the first piece */
  isFirstTime: z.boolean().optional(),
  /** a picture is to be taken of it */
  isPictured: z.boolean().optional(),
  /** the user's own figure for one piece, all coats; without it computed */
  millilitres: z.number().min(0).max(2000).optional(),
  /** kept of the mix for touching up, a piece */
  reserveMl: z.number().min(0).max(100).optional(),
  /** only outdoors: in daylight, and in air that is fit for it */
  isOutdoors: z.boolean().optional(),
  /** dries in the drying cabinet, where the bench has one */
  inCabinet: z.boolean().optional(),
  /** may be left off, or put on in another strength, piece by piece */
  isOptional: z.boolean().optional(),
  /** of this layer on, other pieces wait for the pilot piece's verdict */
  isPiloted: z.boolean().optional(),
  /** other colours that a piece may have it in, each a mixture of its own */
  tones: z
    .array(
      z.strictObject({
        id,
        mixture: z.string().trim().min(1, 'needs a mixture').max(MIXTURE_LETTERS),
        colour,
      }),
    )
    .max(12)
    .optional(),
});

/** What a finish can be wished to have; what each becomes is composed (core/recipe/compose). */
export const LOOK_KINDS = [
  'texture',
  'ground',
  'light',
  'base',
  'metal',
  'chipping',
  'whitewash',
  'second',
  'details',
  'markings',
  'lining',
  'shade',
  'lights',
  'filter',
  'chips',
  'rust',
  'streaks',
  'dust',
  'mud',
  'clear',
  'late',
  'polish',
  'wet',
  'tufts',
  'water',
] as const;
export type LookKind = (typeof LOOK_KINDS)[number];
export const LOOK_STRENGTHS = ['trace', 'normal', 'heavy'] as const;
export type LookStrength = (typeof LOOK_STRENGTHS)[number];

export const lookSchema = z.strictObject({
  id,
  kind: z.enum(LOOK_KINDS),
  /** zones that it is for; empty: all of them */
  zones: z.array(id).max(100),
  strength: z.enum(LOOK_STRENGTHS),
  colour,
});

/** What a recipe was composed from: layer ids of its own are made of the wishes' ids. */
export const looksSchema = z.strictObject({
  list: z.array(lookSchema).max(60),
  /** of the last coat, where a zone asks for nothing else */
  sheen: z.enum(['matt', 'satin', 'gloss']),
  noSolvents: z.boolean(),
  noAirbrush: z.boolean(),
  /** soon on the table: quick products where the school leaves it open */
  isQuick: z.boolean(),
  /** minutes are for one figure of a tray, not for a hand-sized piece */
  isForFigures: z.boolean().optional(),
});

/** A picture or a place that a finish goes by, with the year it shows: things look otherwise a year before and after. */
export const referenceSchema = z.strictObject({
  id,
  name,
  year: name.optional(),
  /** what is to be seen on it, and what of it is taken over */
  shows: z.string().max(400).optional(),
});

/** How much of a zone is seen where the piece stands. */
export const SEEN = ['little', 'never'] as const;
export type Seen = (typeof SEEN)[number];

export const recipeSchema = z.strictObject({
  id,
  name,
  zones: z.array(
    z.strictObject({
      id,
      name,
      sheen: z.enum(SHEENS).optional(),
      /** percent of the piece's surface; zones without one share what is left alike */
      percent: z.number().gt(0).max(100).optional(),
      /** without it: well */
      seen: z.enum(SEEN).optional(),
      /** zones that adjoin it; without it all of them are taken to */
      touches: z.array(id).max(100).optional(),
    }),
  ),
  /** bottom to top */
  layers: z.array(layerSchema),
  looks: looksSchema.optional(),
  /** what it goes by; a picture of each is in the log, under its id */
  references: z.array(referenceSchema).max(40).optional(),
  /** chosen schools, by question (core/recipe/schools.ts); without an entry the default holds */
  schools: z.record(z.string().max(40), z.string().max(40)).optional(),
  /** rules that are not to be heard here, each with why */
  silenced: z
    .array(
      z.strictObject({
        rule: z.string().max(60),
        layer: id.nullable(),
        reason: z.string().trim().min(1, 'needs a reason').max(400),
      }),
    )
    .optional(),
});

/** How much of an optional layer a piece gets. */
export const STRENGTHS = ['off', 'trace', 'heavy'] as const;
export type Strength = (typeof STRENGTHS)[number];

/** How long ago the damage on a piece was done: bare and bright, or gone over by weather. */
export const AGES = ['fresh', 'worn', 'old'] as const;
export type Age = (typeof AGES)[number];

/** Sides of a piece that a marking can go on. */
export const SIDES = ['left', 'right', 'front', 'back', 'top'] as const;
export type Side = (typeof SIDES)[number];

/** What a piece has where life leaves its marks. */
export const FEATURES = ['hatch', 'steps', 'exhaust', 'running', 'deck', 'bow'] as const;
export type Feature = (typeof FEATURES)[number];

export const pieceSchema = z.strictObject({
  id,
  name,
  recipe: id.nullable(),
  /** figures on the tray; 1 for a single piece */
  count: z.int().min(1).max(500),
  /** rack places it takes from its first layer until it is done */
  places: z.int().min(0).max(1000),
  /** a part that must be done before a layer of another piece of the unit goes on */
  joins: z
    .strictObject({
      piece: id,
      layer: id,
      /** glued on as a step of its own, once all that this layer goes over is on and dry */
      glue: z.strictObject({ minutes: z.number().gt(0).max(240), dryMinutes: minutes }).optional(),
    })
    .nullable(),
  /** how large: by class and scale, or measured */
  size: z
    .strictObject({
      class: z.enum(SIZE_CLASSES),
      /** 60 for 1:60; without it the class's own */
      scale: z.number().min(6).max(1000).optional(),
      areaCm2: z.number().gt(0).max(100_000).optional(),
    })
    .optional(),
  /** what it is for: decides how much sealing is asked for */
  use: z.enum(['played', 'shipped', 'display']).optional(),
  /** shipped before it has hardened through, on purpose */
  isPackedSoft: z.boolean().optional(),
  /** part-way: painted elsewhere or long ago, surface unknown; joins its recipe at this layer */
  startsAt: id.optional(),
  /** goes ahead; the others of its recipe wait for its verdict before the layers marked so */
  isPilot: z.boolean().optional(),
  /** layers that take their substitute on this piece */
  substitutes: z.array(id).optional(),
  /** layers that are tried on scrap before this piece gets them */
  trials: z.array(id).max(200).optional(),
  /** optional layers that this piece goes without, or has in another strength than the recipe's */
  effects: z
    .array(z.strictObject({ layer: id, is: z.enum(STRENGTHS) }))
    .max(200)
    .optional(),
  /** layers that this piece has in another of their tones */
  tones: z
    .array(z.strictObject({ layer: id, tone: id }))
    .max(200)
    .optional(),
  age: z.enum(AGES).optional(),
  /** looks as the user says: dealing leaves it as it is */
  isSet: z.boolean().optional(),
  /** without it, what its size class usually has */
  features: z.array(z.enum(FEATURES)).max(FEATURES.length).optional(),
  /** sides that will not be seen where it stands */
  hidden: z.array(z.enum(SIDES)).max(SIDES.length).optional(),
  /** the number that it bears, of a series of markings */
  number: z.int().min(0).max(100_000).optional(),
  /** the how many-th other brief of where its marks go; without it the first */
  brief: z.int().min(0).max(10_000).optional(),
});

/** What is easily forgotten on a piece, to be looked over before its last coat and before the table. */
const details = z.array(z.strictObject({ id, name })).max(200);

export const markingSchema = z.strictObject({
  id,
  name,
  /** several subjects on one sheet are bought as one: the sheet that it is on, by name; without it, a sheet of its own */
  sheet: name.optional(),
  /** how many of it a sheet has; without it nothing is said of how many sheets to buy */
  perSheet: z.int().min(1).max(10_000).optional(),
  /** pieces of these units get them */
  unit: id.nullable(),
  perPiece: z.int().min(1).max(200),
  left: z.int().min(0).max(10_000),
  leftAt: instant.optional(),
  /** when scarce: every side, or only the sides that will be seen */
  policy: z.enum(['every-side', 'seen-sides']),
  /** one goes on each of these sides of a piece; without them so many a piece, wherever they belong */
  sides: z.array(z.enum(SIDES)).max(SIDES.length).optional(),
  /** the sheet is a series of numbers: each piece gets one of its own, the same on all its sides */
  numbers: z
    .strictObject({ from: z.int().min(0).max(100_000), to: z.int().min(0).max(100_000) })
    .refine((n) => n.from <= n.to, 'ends before it begins')
    .optional(),
});

/** A model as it comes out of its box: parts, and what of them is easily forgotten. */
export const kitSchema = z.strictObject({
  id,
  name,
  parts: z
    .array(
      z.strictObject({
        id,
        name,
        count: pieceSchema.shape.count,
        places: pieceSchema.shape.places,
        recipe: id.nullable(),
        size: pieceSchema.shape.size,
        /** glued to this part, by its id, before a layer of its recipe */
        joins: z
          .strictObject({ part: id, layer: id, glue: pieceSchema.shape.joins.unwrap().shape.glue })
          .optional(),
      }),
    )
    .min(1, 'needs a part')
    .max(200),
  details,
  /** sheets that lie in the box */
  markings: z
    .array(markingSchema.omit({ id: true, unit: true }))
    .max(50)
    .optional(),
});

/** How unlike one another the pieces of a unit are meant to be. */
export const VARIETIES = ['alike', 'usual', 'various'] as const;
export type Variety = (typeof VARIETIES)[number];

/** What a unit has been through. */
export const STORIES = ['parade', 'usual', 'stolen', 'winter', 'wreck'] as const;
export type Story = (typeof STORIES)[number];

export const unitSchema = z.strictObject({
  id,
  name,
  /** when it must stand on the table */
  table: dateTime,
  /** cleaned and assembled for its first layer from here on; null: already */
  readyFrom: dateTime.nullable(),
  importance: z.int().min(1).max(5),
  /** finished to this level only: layers above it are left off */
  level: z.int().min(1).max(3).optional(),
  /** hours of work that it may cost */
  budgetHours: z.number().gt(0).max(10_000).optional(),
  /** looked over before the last coat and before the table */
  details: details.optional(),
  pieces: z.array(pieceSchema),
  /** how its pieces were made different: so many stand in a row, in their order */
  deal: z
    .strictObject({
      seed: z.int().min(0).max(1_000_000),
      perRow: z.int().min(1).max(500),
      variety: z.enum(VARIETIES),
    })
    .optional(),
  /** what its pieces have been through: decides where their marks go */
  story: z.enum(STORIES).optional(),
});

/** What one thinks of a product after having used it. */
export const VERDICTS = ['again', 'with-care', 'never'] as const;
export type Verdict = (typeof VERDICTS)[number];

export const productSchema = z.strictObject({
  id,
  /** as mixtures call it */
  name,
  family: z.enum(FAMILY_IDS),
  colour,
  finish: z.enum(SHEENS).optional(),
  bottleMl: z.number().min(0.05, 'is smaller than a drop (0.05 ml)').max(5000),
  leftMl: z.number().min(0).max(100_000),
  /** when that was so; what the log uses up after it is taken off. Without it: before anything was logged */
  leftAt: instant.optional(),
  openedOn: date.optional(),
  /** a test card: the dry coat as it is seen over white and over black paper, from a picture of it */
  card: z
    .strictObject({
      white: colour,
      black: colour,
      overWhite: colour,
      overBlack: colour,
    })
    .optional(),
  price: z.number().min(0).max(10_000).optional(),
  /** how it sprays, covers and behaves */
  character: z.string().max(400).optional(),
  verdict: z.enum(VERDICTS).optional(),
  /** what may stand for it: another product, or what is mixed at home; the best first */
  equivalents: z
    .array(z.strictObject({ id, madeOf: madeOfSchema }))
    .max(20)
    .optional(),
});

export const consumableSchema = z.strictObject({
  id,
  name,
  left: z.number().min(0).max(100_000),
  leftAt: instant.optional(),
  /** used by each step of these tasks or methods */
  perStep: z.number().min(0).max(100),
  usedBy: z.enum(['airbrush', 'enamel', 'mask', 'sponge', 'all']),
});

export const jarSchema = z.strictObject({
  id,
  /** label: the mixture in it */
  mixture: z.string().trim().min(1, 'needs a label').max(MIXTURE_LETTERS),
  leftMl: z.number().min(0).max(5000),
  leftAt: instant.optional(),
  note: z.string().max(400),
});

export const storesSchema = z.strictObject({
  products: z.array(productSchema),
  markings: z.array(markingSchema),
  consumables: z.array(consumableSchema),
  jars: z.array(jarSchema),
});

/** What the user has said of one step: the session that it begins in, or one that it does not. */
export const pinSchema = z.strictObject({
  id,
  piece: id,
  layer: id,
  round: z.int().min(1).max(100),
  /** a moment within the session, usually its beginning */
  session: dateTime,
  is: z.enum(['in', 'out']),
});

export const musterSchema = z.strictObject({
  format: z.literal(MUSTER_FORMAT),
  name,
  /** the plan begins here; nothing is placed before it */
  startsOn: dateTime,
  bench: benchSchema,
  recipes: z.array(recipeSchema),
  units: z.array(unitSchema),
  stores: storesSchema.optional(),
  pins: z.array(pinSchema).max(20_000).optional(),
  kits: z.array(kitSchema).max(500).optional(),
});

export type Muster = z.infer<typeof musterSchema>;
export type Bench = z.infer<typeof benchSchema>;
export type Person = z.infer<typeof personSchema>;
export type DaysAway = z.infer<typeof daysAwaySchema>;
export type Session = z.infer<typeof sessionSchema>;
export type Recipe = z.infer<typeof recipeSchema>;
export type Reference = z.infer<typeof referenceSchema>;
export type Look = z.infer<typeof lookSchema>;
export type Looks = z.infer<typeof looksSchema>;
export type Layer = z.infer<typeof layerSchema>;
export type MadeOf = z.infer<typeof madeOfSchema>;
export type Estimate = z.infer<typeof estimateSchema>;
export type LayerWindow = z.infer<typeof windowSchema>;
export type Substitute = z.infer<typeof substituteSchema>;
export type Piece = z.infer<typeof pieceSchema>;
export type Kit = z.infer<typeof kitSchema>;
export type Tone = NonNullable<Layer['tones']>[number];
export type Unit = z.infer<typeof unitSchema>;
export type TestCard = NonNullable<Product['card']>;
export type Product = z.infer<typeof productSchema>;
export type Marking = z.infer<typeof markingSchema>;
export type Consumable = z.infer<typeof consumableSchema>;
export type Pin = z.infer<typeof pinSchema>;
export type Jar = z.infer<typeof jarSchema>;
export type Stores = z.infer<typeof storesSchema>;
