export {
  consumableUses,
  markingUses,
  productUses,
  shoppingList,
  stepUse,
  type ConsumableUse,
  type MarkingUse,
  type ProductUse,
  type Shortage,
} from './usage';
