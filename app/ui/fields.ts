/** The fields of the user's documents by their schemas: a form names its field here, and its limits come along. */
import {
  amount,
  benchSchema,
  consumableSchema,
  jarSchema,
  layerSchema,
  madeOfSchema,
  markingSchema,
  pieceSchema,
  productSchema,
  recipeSchema,
  substituteSchema,
  unitSchema,
  whole,
  windowSchema,
} from '#core/muster';

const bench = benchSchema.shape;
const layer = layerSchema.shape;

export const FIELDS = {
  unit: unitSchema.shape,
  deal: unitSchema.shape.deal.unwrap().shape,
  piece: pieceSchema.shape,
  size: pieceSchema.shape.size.unwrap().shape,
  glue: pieceSchema.shape.joins.unwrap().shape.glue.unwrap().shape,
  layer,
  zone: recipeSchema.shape.zones.element.shape,
  passes: layer.passes.unwrap().shape,
  faces: layer.faces.unwrap().shape,
  mixPart: madeOfSchema.shape.parts.element.shape,
  window: windowSchema.shape,
  substitute: substituteSchema.shape,
  bench,
  airbrush: bench.airbrush.shape,
  cabinet: bench.cabinet.unwrap().shape,
  place: bench.place.unwrap().shape,
  air: bench.climate.shape.day.shape,
  month: bench.climate.shape.months.unwrap().element.shape,
  product: productSchema.shape,
  marking: markingSchema.shape,
  series: markingSchema.shape.numbers.unwrap().shape,
  consumable: consumableSchema.shape,
  jar: jarSchema.shape,
  handles: whole(0, 10_000).optional(),
  copies: whole(1, 50),
  /** what is asked on the way and kept nowhere */
  asked: {
    millilitres: amount(0, 5000),
    wanted: amount(0, 100_000),
    psi: amount(0, 200),
    minutesMore: whole(1, 10_080),
    repair: whole(1, 600),
    dries: whole(0, 20_160),
  },
  wave: {
    work: amount(0.1, 600),
    change: amount(0, 240),
    window: amount(0, 10_000),
    count: whole(1, 1000).optional(),
    session: amount(1, 1440).optional(),
  },
} as const;
