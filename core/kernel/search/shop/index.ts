export { isShop } from './isShop';
export { ShopSearch } from './search';
