export { find, thingsOf, type Deed, type Thing, type ThingKind } from './find';
