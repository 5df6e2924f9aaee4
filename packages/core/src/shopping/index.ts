export { shoppingList } from './shopping.ts'
export type { CutMaterial, InStores, ShoppingList } from './shopping.ts'
