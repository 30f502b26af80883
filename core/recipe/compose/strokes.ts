/**
 * The layers that a look takes, each with its usual minutes on a hand-sized piece: common practice, no source. Ids are made of the look's
 * id, so that the same wishes give the same layers.
 */
import { familyOf, type FamilyId, type MethodId } from '#core/materials';
import type { Layer, Look, LookStrength, Substitute } from '#core/muster';

type Extra = Partial<Omit<Layer, 'id' | 'family' | 'method'>>;

/** Work beside that of the normal strength. */
const SHARE: Readonly<Record<LookStrength, number>> = { trace: 0.6, normal: 1, heavy: 1.5 };

const minutesFor = (minutes: number, strength: LookStrength): number =>
  Math.max(1, Math.round(minutes * SHARE[strength]));

export function stroke(
  look: Look,
  part: string,
  name: string,
  family: FamilyId,
  method: MethodId,
  minutes: number,
  extra: Extra = {},
): Layer {
  return {
    id: part === '' ? look.id : `${look.id}-${part}`,
    name,
    colour: look.colour,
    family,
    method,
    zones: [...look.zones],
    mixture: '',
    coats: 1,
    minutes: minutesFor(minutes, look.strength),
    dryMinutes: familyOf(family).dryMinutes,
    window: null,
    waitsFor: [],
    pausable: false,
    note: '',
    ...extra,
  };
}

/** Work without paint. */
export function hands(
  look: Look,
  part: string,
  name: string,
  minutes: number,
  task: NonNullable<Layer['task']>,
  extra: Extra = {},
): Layer {
  return stroke(look, part, name, 'work', 'hand', minutes, {
    colour: '#9a958c',
    dryMinutes: 0,
    task,
    ...extra,
  });
}

/** Every effect of solvent has an acrylic way: additive, in more coats, quick to dry (common practice, no source). */
export function acrylicWay(name: string, minutes: number, strength: LookStrength, coats: number): Substitute {
  return {
    name: `${name}, acrylic`,
    family: 'acrylic-wash',
    method: 'brush',
    coats,
    minutes: minutesFor(minutes * 0.6, strength),
    dryMinutes: familyOf('acrylic-wash').dryMinutes,
  };
}

/** Put on, left to go matt, wiped back: a solvent wash is always two steps. */
export function wiped(look: Look, name: string, minutes: number, extra: Extra = {}): Layer[] {
  return [
    stroke(look, 'on', name, 'enamel', 'brush', minutes, {
      dryMinutes: 0,
      window: { opensMinutes: 45, closesMinutes: 180, preferMinutes: 75, through: null },
      substitute: acrylicWay(name, minutes, look.strength, 2),
      ...extra,
    }),
    hands(look, 'wipe', `Wipe: ${name.toLowerCase()}`, minutes, 'wipe', {
      dryMinutes: 720,
      ...(extra.isOptional ? { isOptional: true } : {}),
    }),
  ];
}

const SHEEN_COLOUR = { matt: '#b9bdb9', satin: '#b7bfbf', gloss: '#c4d2d4' } as const;

export type CoatSheen = keyof typeof SHEEN_COLOUR;

/** A coat of varnish, named for why it is there. */
export function coat(
  id: string,
  name: string,
  sheen: CoatSheen,
  zones: readonly string[],
  dryMinutes: number,
): Layer {
  return {
    id,
    name,
    colour: SHEEN_COLOUR[sheen],
    family: 'varnish',
    method: 'airbrush',
    zones: [...zones],
    mixture: `${sheen} varnish 4:1`,
    coats: 1,
    minutes: 4,
    dryMinutes,
    window: null,
    waitsFor: [],
    pausable: false,
    note: '',
    sheen,
  };
}
