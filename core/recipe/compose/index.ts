export { clearZones, composed } from './compose';
export { FIRST_LOOKS, LOOKS, lookFacts, withLook, withoutLook, type LookFacts } from './looks';
export { changesOf, revised, type LayerChange, type Revision } from './revise';
