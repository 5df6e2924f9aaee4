export { shoppingList } from './shopping.ts'
export type {
  CutMaterial,
  InStores,
  ShoppingLine,
  ShoppingList,
  WantedFrame,
  WantedPiece,
} from './shopping.ts'
