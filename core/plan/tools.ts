/** What stands on the bench besides hands: airbrushes, each for its layers, a booth, handles, a drying cabinet. */
import type { Problem } from '#core/kernel';
import { clockPoints, type ClockPoints } from '#core/climate';
import { familyOf, type Drying, type Role } from '#core/materials';
import type { AirbrushRole, Bench, Layer, Piece, SizeClass } from '#core/muster';
import { loadOf } from './load';

/** The first airbrush, and what all others are called before their own id. */
export const AIRBRUSH = 'airbrush';
export const BOOTH = 'booth';
export const CABINET = 'cabinet';
export const COMPRESSOR = 'compressor';

const FOR_PRODUCTS: Readonly<Record<AirbrushRole, readonly Role[]>> = {
  any: [],
  primer: ['primer'],
  colour: ['colour', 'wash'],
  metal: ['metal'],
  varnish: ['seal', 'release'],
};

/**
 * The airbrush of a layer, by its resource: of those with the nozzle that it asks for (all, where none has it or none is asked for) the one
 * whose role names its family; else one for anything; else the first.
 */
export function airbrushOf(bench: Bench, layer: Layer): string {
  const all = [
    { resource: AIRBRUSH, role: 'any' as AirbrushRole, nozzleMm: bench.airbrush.nozzleMm },
    ...(bench.moreAirbrushes ?? []).map((a) => ({
      resource: `${AIRBRUSH}-${a.id}`,
      role: a.role,
      nozzleMm: a.nozzleMm,
    })),
  ];
  const fitting = all.filter((a) => layer.nozzleMm !== undefined && a.nozzleMm === layer.nozzleMm);
  const among = fitting.length > 0 ? fitting : all;
  const chosen =
    among.find((a) => FOR_PRODUCTS[a.role].includes(familyOf(layer.family).role)) ??
    among.find((a) => a.role === 'any') ??
    among[0]!;
  return chosen.resource;
}

/** Has no airbrush of the bench the nozzle that a layer asks for, though their nozzles are known? */
export function lacksNozzle(bench: Bench, layer: Layer): boolean {
  if (layer.method !== 'airbrush' || layer.nozzleMm === undefined) return false;
  const nozzles = [bench.airbrush.nozzleMm, ...(bench.moreAirbrushes ?? []).map((a) => a.nozzleMm)];
  return nozzles.every((n) => n !== undefined) && !nozzles.includes(layer.nozzleMm);
}

/** The airbrush of a layer by its name, where the bench has several; null: there is but one, or none is needed. */
export function toolName(bench: Bench, layer: Layer): string | null {
  if (layer.method !== 'airbrush' || !bench.moreAirbrushes?.length) return null;
  const resource = airbrushOf(bench, layer);
  const own = bench.moreAirbrushes.find((a) => `${AIRBRUSH}-${a.id}` === resource);
  return own ? `airbrush “${own.name}”` : 'first airbrush';
}

type Resources = NonNullable<Problem['resources']>;

/** Airbrushes with their set-ups, and the booth. @param sprayed every layer that is sprayed by airbrush */
export function sprayTools(bench: Bench, sprayed: readonly Layer[]): Resources {
  const calendar = bench.quiet?.length ? COMPRESSOR : 'sessions';
  const brushes = [
    { id: AIRBRUSH, minutes: bench.airbrush },
    ...(bench.moreAirbrushes ?? []).map((a) => ({ id: `${AIRBRUSH}-${a.id}`, minutes: a })),
  ];
  return [
    ...brushes.map(({ id, minutes }) => ({
      id,
      capacity: 1,
      calendar,
      setup: setupOf(
        minutes,
        sprayed.filter((layer) => airbrushOf(bench, layer) === id),
      ),
    })),
    ...(bench.boothPlaces === undefined ? [] : [{ id: BOOTH, capacity: bench.boothPlaces }]),
  ];
}

/** Changes: a colour after a dirty load needs a full clean, any other a change, the first a load. */
function setupOf(
  minutes: Bench['airbrush'],
  layers: readonly Layer[],
): NonNullable<Resources[number]['setup']> {
  const loads = new Map(layers.map((layer) => [loadOf(layer), familyOf(layer.family).isDirty]));
  const between: [string, string, number][] = [];
  for (const [to] of loads) {
    between.push(['', to, minutes.loadMinutes]);
    for (const [from, isDirty] of loads)
      if (isDirty && from !== to && minutes.cleanMinutes !== minutes.changeMinutes)
        between.push([from, to, minutes.cleanMinutes]);
  }
  return { minutes: minutes.changeMinutes, between, idle: minutes.idleMinutes };
}

/** The resource of the handles that pieces of a size go on; null where there are enough. */
export function handleOf(bench: Bench, piece: Piece): string | null {
  const size: SizeClass = piece.size?.class ?? 'figure';
  return bench.handles?.[size] === undefined ? null : `handle-${size}`;
}

export function handles(bench: Bench): Resources {
  return Object.entries(bench.handles ?? {}).flatMap(([size, count]) =>
    count > 0 ? [{ id: `handle-${size}`, capacity: count }] : [],
  );
}

/** The drying clock of a layer, by its name in the problem; null: nothing dries. */
export function clockOf(bench: Bench, layer: Layer): string | null {
  const { drying } = familyOf(layer.family);
  if (drying === 'none') return null;
  return layer.inCabinet && bench.cabinet ? `${CABINET}-${drying}` : drying;
}

/** In the cabinet the air is always the same. */
export function cabinetClocks(
  bench: Bench,
  dryings: readonly Drying[],
  horizon: number,
): [string, ClockPoints][] {
  const { cabinet } = bench;
  if (!cabinet) return [];
  const spell = { from: 0, air: { celsius: cabinet.celsius, humidityPercent: cabinet.humidityPercent } };
  return dryings.map((d) => [`${CABINET}-${d}`, clockPoints(d, [spell], horizon)]);
}
