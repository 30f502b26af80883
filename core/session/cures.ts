/** What goes wrong, and the cure: handbook section 7 (common practice, no source). Each costs minutes and drying. */
import { isFor, isWash } from '#core/recipe';
import type { Layer } from '#core/muster';

export interface Cure {
  readonly trouble: string;
  readonly cure: string;
  readonly minutes: number;
  readonly dryMinutes: number;
}

type Entry = Cure & { readonly fits: (l: Layer) => boolean };

const cure = (
  trouble: string,
  text: string,
  minutes: number,
  dryMinutes: number,
  fits: Entry['fits'],
): Entry => ({
  trouble,
  cure: text,
  minutes,
  dryMinutes,
  fits,
});
const isLift = (l: Layer): boolean => l.task === 'lift';
const isSpray = (l: Layer): boolean => l.method === 'airbrush' || l.method === 'can';
const any = (): boolean => true;

const CURES: readonly Entry[] = [
  cure('Lifted too much', 'Let it dry, touch in or stipple topcoat', 8, 20, isLift),
  cure(
    'Will not lift',
    'More and warmer water, a stiffer brush; else chip by sponge instead',
    10,
    20,
    isLift,
  ),
  cure('Paint swells up in blisters', 'Too wet: leave it to settle', 1, 60, isLift),
  cure('Decal silvered', 'Prick it, softener again', 4, 60, (l) => l.task === 'decal'),
  cure('Tide mark', 'Damp edge within the hour, dry sponge, or make it dirt', 4, 30, isWash),
  cure('Streak too strong', 'Thinner while it can be worked, otherwise a glaze', 5, 60, isWash),
  cure('Pooled', 'Wick it at once', 2, 10, (l) => isFor('release', 'wash')(l)),
  cure('Frosted matt', 'Gloss over, then matt again, thinner', 8, 120, isFor('seal')),
  cure('Sponge pattern repeats', 'Turn the sponge, blend', 4, 15, (l) => l.method === 'sponge'),
  cure(
    'Effect vanished under varnish',
    'Repeat it stronger after sealing; test on a spare',
    10,
    60,
    isFor('seal'),
  ),
  cure('Hair or dust in a wet coat', 'Let it dry, polish, recoat there', 8, 60, isSpray),
  cure('Part fell off', 'Glue it, touch in', 8, 60, any),
  cure('Forgot a detail', 'Paint it; seal again there if its paint goes under the seal', 8, 60, any),
  cure(
    'Missed window',
    'Reseal and start the sandwich again',
    20,
    240,
    (l) => isFor('release')(l) || l.window?.closesMinutes != null,
  ),
  cure('Missed window, accepted', 'Leave it as it is', 1, 0, (l) => l.window != null),
];

/** The cures that fit a layer, the particular ones first. */
export function curesFor(layer: Layer): readonly Cure[] {
  return CURES.filter((c) => c.fits(layer));
}
