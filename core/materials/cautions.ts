import { familyOf, type FamilyId, type Hazard } from './families';
import type { MethodId } from './methods';

/** Stands under every caution. The page gives no advice beyond it. */
export const DEFER = 'Follow the product’s label and safety data sheet, and local rules.';

const SPRAY = 'Extraction to the outside on, respirator that fits the product, no flame or sparks near.';
const CAN = 'Spray cans outdoors only: pressure and gas, no flame, no heat.';
const SOLVENT = 'Thinner is flammable and its vapour harms: air the room, no flame.';
const RAGS =
  'Rags and swabs with oil or thinner heat up by themselves: dry them flat outside or under water in a closed metal bin.';
const DUST = 'Dust mask and eye protection while powder is loose; no brush near the mouth.';
const BLADE = 'Cut away from the hand; eye protection when trimming or drilling.';
const FLAMMABLE_MIST =
  'Thinner by airbrush is a flammable mist: a booth that is rated for it, or not at all.';
const SANDING = 'Sand and polish wet: dust mask and eye protection, and wipe the dust away, never blow it.';
const TWO_PART =
  'Two-part coats and hardeners are beyond a hobby booth unless what their label asks for is there; gloves, no skin contact.';
const RESIN =
  'Poured coats give off vapour while they harden: air the room, gloves, out of children’s reach.';
const GLUE =
  'Glue gives off vapour and sticks skin at once: air the room, keep it from eyes and out of children’s reach.';
const SHARP_AND_WET = 'Moisten with water only, and keep the blade or pick turned away from the hand.';
const WATER = 'Warm water is enough; hot water scalds.';

const OF_HAZARD: Readonly<Record<Hazard, string>> = {
  thinner: SOLVENT,
  rags: RAGS,
  dust: DUST,
  blade: BLADE,
  'warm-water': WATER,
};

/** What the cautions of a layer go by. */
export interface Handling {
  readonly family: FamilyId;
  readonly method: MethodId;
  readonly task?: string | undefined;
  readonly name?: string;
  readonly mixture?: string;
}

/** The usual cautions for a layer, most urgent first; empty for plain brushwork with waterborne paint. */
export function cautionsFor({ family, method, task, name = '', mixture = '' }: Handling): readonly string[] {
  const { hazards, role } = familyOf(family);
  const cautions: string[] = [];
  if (method === 'can') cautions.push(CAN, SPRAY);
  else if (method === 'airbrush') cautions.push(SPRAY);
  if (method === 'airbrush' && hazards.includes('thinner')) cautions.push(FLAMMABLE_MIST);
  if (/hardener|two[- ]part|2k\b|catalyst|isocyanate/i.test(`${name} ${mixture}`)) cautions.push(TWO_PART);
  if (role === 'pour') cautions.push(RESIN);
  if (task === 'polish' || /\bsand(ed|ing)?\b|\bgrind/i.test(name)) cautions.push(SANDING);
  if (task === 'glue') cautions.push(GLUE);
  if (task === 'lift') cautions.push(SHARP_AND_WET);
  for (const hazard of hazards) if (hazard !== 'blade' || task !== 'lift') cautions.push(OF_HAZARD[hazard]);
  return cautions;
}
