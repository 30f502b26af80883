/** Looks as stages of the work, in the order of the model's imagined life (common practice, no source), each moved by the schools that differ. */
import { familyOf } from '#core/materials';
import type { Layer, Look, Looks } from '#core/muster';
import { labOf } from '#core/optics';
import { acrylicWay, hands, stroke, wiped } from './strokes';
import type { Schooled } from './schooled';

/** A few layers that belong together, and where they stand in the stack: lower comes first. */
export interface Stage {
  readonly rank: number;
  readonly layers: readonly Layer[];
}

interface Ways {
  readonly looks: Looks;
  readonly schools: Schooled;
  /** ids of all zones; one of no name where the recipe has none */
  readonly zones: readonly string[];
}

const RANK = {
  clean: 0,
  cover: 5,
  texture: 10,
  ground: 15,
  light: 20,
  base: 25,
  chipping: 30,
  second: 40,
  metal: 42,
  details: 45,
  chipsUnderMarkings: 48,
  markings: 50,
  whitewash: 55,
  chipsFirst: 60,
  lining: 65,
  shade: 68,
  lights: 70,
  filter: 72,
  chips: 75,
  rust: 78,
  streaks: 80,
  dust: 82,
  mud: 85,
  late: 88,
  last: 90,
  bareMetal: 92,
  looseDust: 94,
  polish: 95,
  wet: 96,
  uncover: 99,
  tufts: 100,
  water: 101,
} as const;
export const LAST_COAT = RANK.last;

const heavy = (look: Look): boolean => look.strength === 'heavy';
const OPTIONAL = { isOptional: true } as const;

/** All stages that the looks ask for; sealing comes later. */
export function stagesOf(ways: Ways): Stage[] {
  const { list } = ways.looks;
  const chipping = list.filter((l) => l.kind === 'chipping');
  const stages = list
    .filter((l) => l.kind !== 'chipping' && l.kind !== 'base')
    .flatMap((l) => STAGE[l.kind]!(l, ways));
  stages.push(...basesOf(ways, chipping));
  if (!list.some((l) => l.kind === 'ground')) stages.push(...STAGE.ground!(GROUND, ways));
  return stages.sort((a, b) => a.rank - b.rank);
}

/** Paint needs something to hold on: without a wish a grey primer. */
const GROUND: Look = { id: 'ground', kind: 'ground', zones: [], strength: 'normal', colour: '#8d9294' };

const at = (rank: number, ...layers: Layer[]): Stage[] => [{ rank, layers }];

/** Enamel and oil, or acrylic: the user's word first, then the school, then how soon it is wanted. */
function isSolventWash({ looks, schools }: Ways): boolean {
  if (looks.noSolvents) return false;
  return schools['washes'] === 'enamel' || (schools['washes'] === 'either' && !looks.isQuick);
}

const table = ({ schools }: Ways): boolean => schools['realism'] === 'table';
/** Lighter, or darker, by a share: contrast raised for the eye at arm's length. */
export function shifted(colour: string, share: number): string {
  const channel = (k: number): string => {
    const v = parseInt(colour.slice(k, k + 2), 16);
    const to = share > 0 ? v + (255 - v) * share : v * (1 + share);
    return Math.round(to).toString(16).padStart(2, '0');
  };
  return `#${channel(1)}${channel(3)}${channel(5)}`;
}
const RAISED = 0.25;

type Make = (look: Look, ways: Ways) => Stage[];

const STAGE: Partial<Record<Look['kind'], Make>> = {
  texture: (l) =>
    at(RANK.texture, stroke(l, '', 'Texture and pitting', 'paste', 'hand', 8, { coats: heavy(l) ? 2 : 1 })),
  ground: (l) => {
    const { l: lightness } = labOf(l.colour);
    const shade = lightness < 30 ? 'Black' : lightness > 80 ? 'White' : 'Grey';
    return at(
      RANK.ground,
      stroke({ ...l, zones: [] }, '', `${shade} primer`, 'primer', 'airbrush', 5, {
        mixture: `${shade.toLowerCase()} primer, undiluted`,
      }),
    );
  },
  light: (l, ways) =>
    at(
      RANK.light,
      stroke(l, '', 'Light from above', 'acrylic', 'airbrush', 3, {
        reach: 'half',
        colour: table(ways) ? shifted(l.colour, RAISED) : l.colour,
        coats: heavy(l) ? 2 : 1,
      }),
    ),
  metal: (l, { schools }) => {
    const way = schools['metals'];
    if (way === 'bare')
      return at(
        RANK.bareMetal,
        stroke(l, '', 'Metal, left unvarnished', 'metal', 'brush', 6, { sheen: 'metal' }),
      );
    return at(
      RANK.metal,
      way === 'sprayed'
        ? stroke(l, '', 'Metal, sprayed', 'metal', 'airbrush', 5, { nozzleMm: 0.4, coats: heavy(l) ? 2 : 1 })
        : stroke(l, '', 'Metal, dry-brushed', 'metal', 'brush', 6, {
            coats: heavy(l) ? 2 : 1,
            reach: 'most',
          }),
    );
  },
  whitewash: (l) =>
    at(
      RANK.whitewash,
      stroke(l, '', 'Washable whitewash', 'washable', 'brush', 8, {
        coats: l.strength === 'trace' ? 1 : 2,
        film: 'thin',
      }),
      hands(l, 'rub', 'Rub the whitewash off where it wears', 10, 'lift', { dryMinutes: 60 }),
    ),
  second: (l, { zones }) => {
    // On zones of its own the others are covered; as a part of all of them it is masked on them.
    const others = l.zones.length > 0 ? zones.filter((z) => !l.zones.includes(z)) : [];
    const over = others.length > 0 ? { zones: others } : {};
    return at(
      RANK.second,
      hands(l, 'mask', 'Mask for the second colour', 10, 'mask', over),
      stroke(l, '', 'Second colour', 'acrylic', 'airbrush', 5, { coats: heavy(l) ? 3 : 2, film: 'thin' }),
      hands(l, 'unmask', 'Unmask while it is young', 4, 'unmask', over),
    );
  },
  details: (l) =>
    at(
      RANK.details,
      stroke(l, '', 'Details', 'acrylic', 'brush', 12, { pausable: true, coats: 1, reach: 'traces' }),
    ),
  markings: (l, { schools }) => {
    const rank = schools['markings'] === 'chips-first' ? RANK.chipsUnderMarkings + 1 : RANK.markings;
    if (schools['decals'] === 'freehand')
      return at(
        rank,
        stroke(l, '', 'Markings freehand', 'ink', 'brush', 14, { pausable: true, reach: 'traces' }),
      );
    const decals = hands(l, '', 'Decals', 12, 'decal', {
      colour: l.colour,
      dryMinutes: 20,
      note: 'Trim the carrier film; soak a minute; slide, dab dry.',
    });
    const solutions = (name: string, part: string, dry: number, task?: 'softener'): Layer =>
      stroke(l, part, name, 'setting', 'brush', 2, {
        colour: '#d8ded8',
        dryMinutes: dry,
        ...(task ? { task } : {}),
      });
    return schools['decals'] === 'matt'
      ? at(
          rank,
          solutions('Setting solution', 'set', 5),
          decals,
          solutions('Softening solution', 'soften', 60, 'softener'),
        )
      : at(rank, decals);
  },
  lining: (l, ways) => {
    const colour = table(ways) ? shifted(l.colour, -RAISED) : l.colour;
    if (isSolventWash(ways))
      return at(RANK.lining, ...wiped(l, 'Line wash', 8, { ...OPTIONAL, colour, reach: 'recesses' }));
    return at(
      RANK.lining,
      stroke(l, 'on', 'Line wash, acrylic', 'acrylic-wash', 'brush', 8, {
        colour,
        reach: 'recesses',
        coats: heavy(l) ? 3 : 2,
        ...OPTIONAL,
      }),
    );
  },
  shade: (l, ways) => {
    const colour = table(ways) ? shifted(l.colour, -RAISED) : l.colour;
    if (ways.schools['washes'] === 'enamel' && !ways.looks.noSolvents)
      return at(RANK.shade, ...wiped(l, 'Overall wash', 5, { ...OPTIONAL, colour }));
    return at(
      RANK.shade,
      stroke(l, 'on', 'Overall shade', 'acrylic-wash', 'brush', 3, {
        colour,
        coats: l.strength === 'trace' ? 1 : 2,
        ...OPTIONAL,
      }),
    );
  },
  lights: (l, ways) =>
    at(
      RANK.lights,
      stroke(l, '', 'Lit edges, dry-brushed', 'acrylic', 'brush', 4, {
        reach: 'edges',
        colour: table(ways) ? shifted(l.colour, RAISED) : l.colour,
        dryMinutes: 10,
        coats: heavy(l) ? 2 : 1,
        ...OPTIONAL,
      }),
    ),
  filter: (l, { looks }) =>
    at(
      RANK.filter,
      looks.noSolvents || looks.isQuick
        ? stroke(l, '', 'Tint, acrylic glaze', 'ink', 'brush', 5, { coats: heavy(l) ? 2 : 1, ...OPTIONAL })
        : stroke(l, '', 'Tint, thinned oil', 'oil', 'brush', 6, { film: 'thin', ...OPTIONAL }),
    ),
  chips: (l, { looks, schools }) => {
    const isLifted = looks.list.some((x) => x.kind === 'chipping');
    if (schools['chips'] === 'medium' && isLifted) return [];
    const rank =
      schools['chips-and-wash'] === 'chips-after'
        ? RANK.chips
        : schools['markings'] === 'chips-first'
          ? RANK.chipsUnderMarkings
          : RANK.chipsFirst;
    const isCorrecting = isLifted && schools['chips'] === 'mix';
    const brush = stroke(
      l,
      'brush',
      isCorrecting ? 'Correct the chips by brush' : 'Chips by brush',
      'acrylic',
      'brush',
      isCorrecting ? 6 : 10,
      { pausable: true, reach: 'traces', ...OPTIONAL },
    );
    const sponged = (look: Look): Layer =>
      stroke(look, 'sponge', 'Chips by sponge, light then dark', 'acrylic', 'sponge', 5, {
        note: 'Turn the sponge at each dab.',
        ...OPTIONAL,
      });
    switch (schools['chips']) {
      case 'sponge':
        return at(rank, sponged(l));
      case 'medium': {
        // Nothing is lifted here, and by hand as little as can be: one round of the sponge for all that is wished.
        const all = looks.list.filter((x) => x.kind === 'chips');
        const zones = all.some((x) => x.zones.length === 0) ? [] : [...new Set(all.flatMap((x) => x.zones))];
        return l === all[0] ? at(rank, sponged({ ...l, zones })) : [];
      }
      case 'brush':
        return at(rank, brush);
      default:
        return at(rank, ...(isLifted ? [brush] : [sponged(l), brush]));
    }
  },
  rust: (l) =>
    at(
      RANK.rust,
      stroke(l, 'old', 'Rust, old and dark', 'acrylic', 'sponge', 5, {
        colour: shifted(l.colour, -0.35),
        ...OPTIONAL,
      }),
      stroke(l, '', 'Rust, new and bright', 'acrylic', 'sponge', 4, { ...OPTIONAL }),
    ),
  streaks: (l, ways) =>
    ways.looks.noSolvents || (ways.looks.isQuick && ways.schools['washes'] !== 'enamel')
      ? at(
          RANK.streaks,
          stroke(l, '', 'Streaks, acrylic, several thin passes', 'acrylic-wash', 'brush', 5, {
            reach: 'traces',
            coats: heavy(l) ? 4 : 3,
            ...OPTIONAL,
          }),
        )
      : at(
          RANK.streaks,
          stroke(l, '', 'Streaks, drawn down', 'enamel', 'brush', 10, {
            reach: 'traces',
            note: 'Leave until the wet gloss turns to satin; draw out with a barely damp brush.',
            substitute: acrylicWay('Streaks in several thin passes', 10, l.strength, 3),
            ...OPTIONAL,
          }),
        ),
  dust: (l, { looks, schools }) => {
    if (looks.noSolvents)
      return at(
        RANK.dust,
        stroke(l, '', 'Dust, dry-brushed', 'acrylic', 'brush', 4, {
          dryMinutes: 10,
          reach: 'edges',
          ...OPTIONAL,
        }),
      );
    return at(
      schools['powders'] === 'never' ? RANK.looseDust : RANK.dust,
      stroke(l, '', 'Dust, powder with fixer', 'powder', 'brush', 5, {
        air: 'contaminates',
        reach: 'half',
        ...OPTIONAL,
      }),
    );
  },
  mud: (l, { looks }) =>
    at(
      RANK.mud,
      stroke(l, '', 'Mud', 'paste', 'brush', 8, { coats: heavy(l) ? 2 : 1, reach: 'half', ...OPTIONAL }),
      ...(heavy(l) && !looks.noSolvents
        ? [
            stroke(l, 'flicked', 'Splashes, flicked off the brush', 'spirit-mud', 'brush', 2, {
              task: 'spatter',
              air: 'contaminates',
              reach: 'traces',
              dryMinutes: 240,
              ...OPTIONAL,
            }),
          ]
        : []),
    ),
  clear: (l) => [
    ...at(RANK.cover, hands(l, 'cover', 'Cover the clear parts', 6, 'putty')),
    ...at(RANK.uncover, hands(l, 'free', 'Free the clear parts, rub off what crept under', 5, 'unmask')),
  ],
  polish: (l) =>
    at(RANK.polish, stroke(l, '', 'Polish the edges', 'pen', 'hand', 5, { task: 'polish', sheen: 'metal' })),
  wet: (l) =>
    at(
      RANK.wet,
      stroke(l, '', 'Wet spots', 'varnish', 'brush', 4, {
        reach: 'traces',
        mixture: 'gloss wet effect, undiluted',
        sheen: 'wet',
      }),
    ),
  late: (l) =>
    at(
      RANK.late,
      hands(l, 'bare', 'Bare the joint', 3, 'bare'),
      hands(l, 'glue', 'Glue the late part, hold', 4, 'glue', { dryMinutes: 60 }),
      hands(l, 'touch', 'Touch up round the joint, against the picture', 5, 'coat', { dryMinutes: 15 }),
    ),
  tufts: (l) =>
    at(RANK.tufts, hands(l, '', 'Tufts and rim', 8, 'coat', { colour: l.colour, dryMinutes: 60 })),
  water: (l) => {
    const pours = POURS[l.strength];
    return at(
      RANK.water,
      stroke(l, '', 'Clear water', 'water', 'pour', 6, {
        mixture: 'water effect, undiluted',
        // Deeper is more pours, not a longer one.
        minutes: 6,
        depthMm: pours * POUR_MM,
        ...(pours > 1 ? { passes: { expected: pours, waitMinutes: familyOf('water').dryMinutes } } : {}),
        note: 'On a level table, dust cover on.',
      }),
    );
  },
};

/** Pours of so many millimetres, one a day: deeper ones stay soft and cloud (common practice, no source). */
const POUR_MM = 2.5;
const POURS = { trace: 1, normal: 2, heavy: 3 } as const;

/** Base colours where nothing chips them, and the sandwiches in which they are the topcoat. */
function basesOf(ways: Ways, chipping: readonly Look[]): Stage[] {
  const bases = ways.looks.list.filter((l) => l.kind === 'base');
  const zonesOf = (l: Look): readonly string[] => {
    const known = l.zones.filter((z) => ways.zones.includes(z));
    return known.length > 0 ? known : ways.zones;
  };
  const chipped = new Set(chipping.flatMap(zonesOf));
  const stages: Stage[] = [];
  for (const base of bases) {
    const plain = zonesOf(base).filter((z) => !chipped.has(z));
    if (plain.length > 0)
      stages.push({ rank: RANK.base, layers: coloured(base, named(plain, ways), '', ways) });
  }
  chipping.forEach((look, k) => {
    const zones = zonesOf(look);
    // What chips off is the next sandwich's ground where there is one, else the base colours.
    const next = chipping.slice(k + 1).find((c) => zones.every((z) => zonesOf(c).includes(z)));
    const covered = new Set(chipping.slice(k + 1).flatMap(zonesOf));
    const tops = next
      ? []
      : bases.flatMap((base) => {
          const own = zonesOf(base).filter((z) => zones.includes(z) && !covered.has(z));
          return own.length > 0 ? coloured(base, named(own, ways), `over-${look.id}`, ways) : [];
        });
    const bare = next
      ? zones
      : zones.filter((z) => covered.has(z) || !bases.some((b) => zonesOf(b).includes(z)));
    if (bare.length > 0)
      tops.unshift(
        stroke({ ...look, zones: named(bare, ways) }, 'top', 'Topcoat', 'acrylic', 'airbrush', 8, {
          colour: next?.colour ?? '#9aa3a8',
          coats: 2,
        }),
      );
    stages.push({
      rank: RANK.chipping + k / 100,
      layers: sandwich(look, named(zones, ways), tops, k > 0, ways),
    });
  });
  return stages;
}

/** As layers name their zones: none where it is all of them. */
const named = (zones: readonly string[], ways: Ways): string[] =>
  zones.length === ways.zones.length ? [] : [...zones];

function coloured(base: Look, zones: string[], part: string, ways: Ways): Layer[] {
  const look = { ...base, zones };
  const ground = ways.looks.list.find((l) => l.kind === 'ground') ?? GROUND;
  const isOnDark =
    part === '' && labOf(ground.colour).l < 35 && !ways.looks.list.some((l) => l.kind === 'light');
  const { l: lightness, a, b } = labOf(base.colour);
  const isHard = isOnDark && lightness >= 55 && Math.hypot(a, b) >= 35;
  const first = stroke(look, part, 'Base colour', 'acrylic', 'airbrush', 8, {
    coats: isHard ? 3 : 2,
    ...(isHard ? { film: 'thin' as const } : {}),
  });
  if (base.strength === 'trace') return [{ ...first, coats: isHard ? 3 : 1 }];
  if (base.strength === 'normal') return [first];
  const share = table(ways) ? 0.35 : 0.2;
  return [
    first,
    stroke(
      look,
      part === '' ? 'lit' : `${part}-lit`,
      'Base colour, lighter above',
      'acrylic',
      'airbrush',
      4,
      {
        colour: shifted(base.colour, share),
        reach: 'half',
      },
    ),
  ];
}

/** How the topcoat goes on over the medium, by school: window in minutes, coats. */
const TOPCOAT = {
  hour: { opens: 20, closes: 60, coats: null },
  dry: { opens: 720, closes: null, coats: null },
  wet: { opens: 5, closes: 30, coats: 4 },
} as const;

function sandwich(
  look: Look,
  zones: string[],
  tops: readonly Layer[],
  isSecond: boolean,
  ways: Ways,
): Layer[] {
  const own = { ...look, zones };
  const what = ways.schools['sandwich'];
  const way = TOPCOAT[ways.schools['topcoat'] as keyof typeof TOPCOAT];
  const layers = isSecond
    ? []
    : [stroke(own, 'beneath', 'What shows beneath, broken in tone', 'acrylic', 'airbrush', 7, { coats: 2 })];
  if (what === 'salt') return [...layers, ...salted(own, tops)];
  const window = {
    opensMinutes: what === 'crackle' ? 20 : what === 'spray' ? 5 : way.opens,
    closesMinutes: what === 'crackle' ? 60 : what === 'spray' ? 30 : way.closes,
    preferMinutes: null,
    through: tops.length > 1 ? tops.at(-1)!.id : null,
  };
  const release: Layer =
    what === 'crackle'
      ? stroke(own, 'crackle', 'Crackle', 'crackle', 'brush', 6, {
          colour: '#cfc7b4',
          mixture: 'crackle, undiluted',
          dryMinutes: 20,
          window,
          note: 'A film, not wet, not dry: then one coat only.',
        })
      : stroke(
          own,
          'medium',
          what === 'spray' ? 'Decanted spray, very light coats' : 'Chipping medium',
          'medium',
          'airbrush',
          3,
          {
            colour: '#7f86c9',
            mixture: what === 'spray' ? 'decanted spray, undiluted' : 'chipping medium, undiluted',
            coats: what === 'spray' ? 3 : look.strength === 'trace' ? 1 : 2,
            nozzleMm: 0.7,
            dryMinutes: Math.min(20, window.opensMinutes),
            window,
            note:
              what === 'spray'
                ? 'Decant outdoors; it degasses: no flame. Never heat.'
                : 'Thin, no pools; wick them at once. Cool air only, never heat.',
          },
        );
  layers.push(
    release,
    ...tops.map((t) =>
      what === 'crackle'
        ? { ...t, coats: 1 }
        : way.coats === null
          ? t
          : { ...t, coats: way.coats, film: 'thin' as const },
    ),
  );
  // Crackle opens by itself; only what swells with water is lifted.
  layers.push(
    hands(
      own,
      'lift',
      what === 'crackle' ? 'Lift the plates with tape or a damp brush' : 'Moisten and lift chips',
      15,
      'lift',
      {
        dryMinutes: 30,
      },
    ),
  );
  return layers;
}

/** Salt is a mask in spots: strewn on water, dried to the last drop, one thin coat over it, brushed and rinsed off. */
function salted(look: Look, tops: readonly Layer[]): Layer[] {
  const dry = 120;
  return [
    hands(look, 'salt', 'Wet it, strew salt, turn when dry', 8, 'mask', {
      masking: 'salt',
      faces: { count: 2, waitMinutes: 90 },
      dryMinutes: dry,
      judgeFrom: `${look.id}-rinse`,
      note: 'Until every drop of water is gone.',
    }),
    ...tops.map((t) => ({ ...t, coats: 1, film: 'thin' as const })),
    hands(look, 'off', 'Brush the salt off', 4, 'unmask'),
    hands(look, 'rinse', 'Rinse, let dry', 6, 'rinse', { dryMinutes: dry }),
  ];
}
