/** What a layer is for the craft: read from its family's record, its task and its sheen. */
import { familyOf, type Binder, type Role } from '#core/materials';
import type { Layer } from '#core/muster';

type Kind = Pick<Layer, 'family' | 'task' | 'sheen'>;

/** A product of one of these roles. */
export const isFor =
  (...roles: Role[]) =>
  (l: Kind): boolean =>
    roles.includes(familyOf(l.family).role);
const isBoundBy =
  (...binders: Binder[]) =>
  (l: Kind): boolean =>
    binders.includes(familyOf(l.family).binder);

/** Leaves a film or a stain: not plain work. */
export const isPaint = (l: Kind): boolean => !isFor('work', 'helper')(l);
export const isAcrylic = isBoundBy('acrylic');
export const isSolvent = isBoundBy('spirit');
/** Its thinner, and how long it takes to harden, are those of oil. */
export const isOil = (l: Kind): boolean => familyOf(l.family).drying === 'oxidation';
export const isEnamel = (l: Kind): boolean => isSolvent(l) && !isOil(l);
export const isLacquer = isBoundBy('lacquer');
export const isMedium = isFor('release');
export const isWash = isFor('wash');
export const isAcrylicWash = (l: Kind): boolean => isWash(l) && isAcrylic(l);
/** Water that dries beneath it moves it: washable paint, or powder that nothing holds. */
export const isWashable = (l: Kind): boolean => l.family === 'washable';
export const isLoose = isBoundBy('loose');
/** Closes what lies beneath: varnish, or lacquer that is not a primer. */
export const isSeal = (l: Kind): boolean =>
  isFor('seal')(l) || (isBoundBy('lacquer')(l) && l.sheen !== undefined);
export const isColour = (l: Kind): boolean =>
  isFor('colour', 'metal', 'primer', 'crackle', 'texture')(l) || isSolvent(l);
export const isTask =
  (...tasks: NonNullable<Layer['task']>[]) =>
  (l: Kind): boolean =>
    l.task !== undefined && tasks.includes(l.task);
/** Shines on purpose: matt varnish over it would dull it. */
export const isShiny = (l: Kind): boolean =>
  l.sheen === 'metal' || l.sheen === 'wet' || l.task === 'polish' || isFor('pour')(l);
export const isMatt = (l: Kind): boolean => isSeal(l) && l.sheen === 'matt';
