export { benchRisks, type BenchRisks } from './bench';
export { courseOf, type Course } from './course';
export { Oddsmaker, type Driver, type Odds, type UnitOdds } from './odds';
export { Player, type Outcome } from './play';
export { noRisks, type Factor, type Risks } from './risks';
export { oddsChange, oddsWords } from './words';
export { forecaster, type Forecast } from './forecast';
