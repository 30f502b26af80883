export { clockPoints, minuteAfter, ticksAt, type ClockPoints, type Spell } from './clock';
export { dewPointCelsius, saturationHpa, vapourPressureDeficitHpa } from './psychrometrics';
export { dryingRate, REFERENCE, type Air } from './rates';
export { unfitness, type Need } from './fitness';
export { simulatedAir } from './simulated';
export { daylight, type Daylight } from './daylight';
