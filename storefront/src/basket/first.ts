// What buttons may say of the basket before they stand; only where the shop tells what is in it.
export { readBasket } from './basket';
