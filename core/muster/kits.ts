/** Kits: a unit taken as a model for the next ones like it. */
import type { Kit, Muster, Piece, Unit } from './document';
import { numberedNames, type NewId } from './edit';
import type { LocalDateTime } from './localTime';

/** The parts of a unit as a kit, with what is easily forgotten on it. */
export function kitOf(unit: Unit, newId: NewId): Kit {
  return {
    id: newId(),
    name: unit.name,
    parts: unit.pieces.map(({ id, name, count, places, recipe, size, joins }) => ({
      id,
      name,
      count,
      places,
      recipe,
      ...(size ? { size } : {}),
      ...(joins
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

/** A unit out of a kit, numbered on after those that are called so already. */
export function unitOfKit(muster: Muster, kit: Kit, table: LocalDateTime, newId: NewId): Unit {
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
