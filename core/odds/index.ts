export { benchRisks, type BenchRisks } from './bench';
export { courseOf, type Course } from './course';
export { Luck } from './luck';
export { Oddsmaker, type Driver, type Odds, type UnitOdds } from './odds';
export { Player, type Outcome } from './play';
export { noRisks, type Factor, type Helper, type Risks, type Supply, type Twist } from './risks';
export { oddsChange, oddsWords } from './words';
export { Forecaster, type Forecast, type LatestStart, type Margin } from './forecast';
export { correction, judged, recordWords, type Given, type Judged, type Kept } from './record';
