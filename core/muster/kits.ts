/** Kits: a unit taken as a model for the next ones like it. */
import type { Kit, Muster, Piece, Unit } from './document';
import { numberedNames, storesOf, withStores, withUnit, type NewId } from './edit';
import type { LocalDateTime } from './localTime';

/**
 * Parts of a unit as a kit, with what is easily forgotten on it and the sheets of markings that are its own.
 * @param pieces ids of those that make the kit; without them all
 */
export function kitOf(muster: Muster, unit: Unit, newId: NewId, pieces?: ReadonlySet<string>): Kit {
  const parts = pieces ? unit.pieces.filter((p) => pieces.has(p.id)) : unit.pieces;
  const markings = storesOf(muster)
    .markings.filter((m) => m.unit === unit.id)
    .map(({ id, unit, leftAt, ...sheet }) => (void [id, unit, leftAt], sheet));
  return {
    id: newId(),
    name: pieces && parts.length === 1 ? parts[0]!.name : unit.name,
    ...(markings.length > 0 ? { markings } : {}),
    parts: parts.map(({ id, name, count, places, recipe, size, joins }) => ({
      id,
      name,
      count,
      places,
      recipe,
      ...(size ? { size } : {}),
      ...(joins && parts.some((p) => p.id === joins.piece)
        ? { joins: { part: joins.piece, layer: joins.layer, ...(joins.glue ? { glue: joins.glue } : {}) } }
        : {}),
    })),
    details: unit.details ?? [],
  };
}

/** The muster with the kit, or with it in the place of the one that has its name. */
export function withKit(muster: Muster, kit: Kit): Muster {
  const others = (muster.kits ?? []).filter((k) => k.name.toLowerCase() !== kit.name.toLowerCase());
  return { ...muster, kits: [...others, kit] };
}

export function withoutKit(muster: Muster, id: string): Muster {
  return { ...muster, kits: (muster.kits ?? []).filter((k) => k.id !== id) };
}

/** The muster with a unit out of a kit, and the sheets of markings that lie in its box. @returns the unit too */
export function withUnitOfKit(
  muster: Muster,
  kit: Kit,
  table: LocalDateTime,
  newId: NewId,
): { readonly muster: Muster; readonly unit: Unit } {
  const unit = unitOfKit(muster, kit, table, newId);
  const stores = storesOf(muster);
  const sheets = (kit.markings ?? []).map((m) => ({ ...m, id: newId(), unit: unit.id }));
  const withIt = withUnit(muster, unit);
  return {
    unit,
    muster:
      sheets.length === 0
        ? withIt
        : withStores(withIt, { ...stores, markings: [...stores.markings, ...sheets] }),
  };
}

/** A unit out of a kit, numbered on after those that are called so already. */
function unitOfKit(muster: Muster, kit: Kit, table: LocalDateTime, newId: NewId): Unit {
  const taken = muster.units.map((u) => u.name);
  const [numbered] = numberedNames(kit.name, 1, taken);
  const ids = new Map(kit.parts.map((p) => [p.id, newId()]));
  return {
    id: newId(),
    name: taken.includes(kit.name) ? numbered! : kit.name,
    table,
    readyFrom: null,
    importance: 3,
    ...(kit.details.length > 0 ? { details: kit.details } : {}),
    pieces: kit.parts.map(({ id, name, count, places, recipe, size, joins }): Piece => ({
      id: ids.get(id)!,
      name,
      count,
      places,
      recipe,
      joins: joins
        ? {
            piece: ids.get(joins.part) ?? '',
            layer: joins.layer,
            ...(joins.glue ? { glue: joins.glue } : {}),
          }
        : null,
      ...(size ? { size } : {}),
    })),
  };
}
