/** A muster of one's own from a few answers, each with a default that most benches can live with. */
import * as z from 'zod';
import {
  benchOf,
  MUSTER_FORMAT,
  ROOMS,
  SIZE_CLASSES,
  withSuffix,
  type Evening,
  type LocalDateTime,
  type Muster,
  type NewId,
  type Recipe,
  type RoomId,
} from '#core/muster';
import { withDrafts, type UnitDraft } from './draft';

/** What has been answered so far, as it is put by while a page is left; anything else is not taken up again. */
export const answersSchema = z.object({
  evenings: z
    .array(
      z.object({
        weekday: z.int().min(1).max(7),
        from: z.string().max(5),
        to: z.string().max(5),
        isOn: z.boolean(),
      }),
    )
    .length(7),
  hasAirbrush: z.boolean(),
  room: z.enum(ROOMS.map((r) => r.id)),
  table: z.string().max(16),
  step: z.int().min(0).max(2).nullable(),
  units: z
    .array(
      z.object({
        name: z.string().max(200),
        table: z.string().max(16).nullable(),
        readyFrom: z.string().max(16).optional(),
        importance: z.int().min(1).max(5).optional(),
        pieces: z.array(
          z.object({
            name: z.string().max(200),
            figures: z.int().min(1).max(500),
            recipe: z.string().max(80).nullable(),
            size: z.enum(SIZE_CLASSES).optional(),
            isLate: z.boolean().optional(),
          }),
        ),
      }),
    )
    .max(5000),
});
export type Answers = z.infer<typeof answersSchema>;

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
