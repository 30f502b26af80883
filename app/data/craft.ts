/** What the page itself must know of recipes and plans; fetched apart from it (`fetchCraft`). */
export { checkMuster, hasErrors, MUSTER_CHECKS } from '#core/plan';
export { aboutStep, airOf } from '#core/session';
