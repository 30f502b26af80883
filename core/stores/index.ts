export {
  consumableUses,
  markingUses,
  productUses,
  shoppingList,
  unnamedUses,
  type Unnamed,
  type ConsumableUse,
  type MarkingUse,
  type ProductUse,
  type Shortage,
} from './usage';
