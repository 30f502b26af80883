/** A muster of one's own from a few answers, each with a default that most benches can live with. */
import {
  benchOf,
  MUSTER_FORMAT,
  withSuffix,
  type Evening,
  type LocalDateTime,
  type Muster,
  type NewId,
  type Recipe,
  type RoomId,
} from '#core/muster';
import { withDrafts, type UnitDraft } from './draft';

export interface Beginning {
  readonly name: string;
  readonly evenings: readonly Evening[];
  readonly hasAirbrush: boolean;
  readonly room: RoomId;
  readonly units: readonly UnitDraft[];
  /** for units without a date */
  readonly table: LocalDateTime;
}

/**
 * @param startsOn from when is planned @param library recipes as they are to be taken: by brush, where there is no airbrush
 * @returns a muster that passes the door when its names and dates do
 */
export function begun(
  { name, evenings, hasAirbrush, room, units, table }: Beginning,
  startsOn: LocalDateTime,
  timeZone: string,
  library: readonly Recipe[],
  newId: NewId,
): Muster {
  const empty: Muster = {
    format: MUSTER_FORMAT,
    name: withSuffix(name.trim() || 'My muster', ''),
    startsOn,
    bench: benchOf(timeZone, evenings, hasAirbrush, room),
    recipes: [],
    units: [],
  };
  return withDrafts(empty, units, library, table, newId);
}
