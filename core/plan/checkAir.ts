/** The air against what is to be done in it: hours in which layers cannot go on, readings with holes, spray without extraction. */
import { unfitness } from '#core/climate';
import {
  airAt,
  minutesSince,
  minutesUntil,
  originOf,
  sessionsOf,
  sortedReadings,
  spellsOf,
  wallTime,
  type Muster,
} from '#core/muster';
import { layerFix, onRecipe, type Finding, type Place, type RuleId } from '#core/recipe';
import { needOf } from './compilePiece';
import { horizonDays } from './horizon';
import { moment } from './words';

const PLACE: Place = {};
const HOUR = 60;
const STEP = 15;

export function checkAir(muster: Muster): Finding[] {
  return [...checkReadings(muster), ...checkFitness(muster), ...checkExtraction(muster)];
}

function warning(rule: RuleId, where: string, text: string, cure: string): Finding {
  return { rule, severity: 'warning', place: PLACE, where, text, cure };
}

function checkReadings(muster: Muster): Finding[] {
  const readings = muster.bench.readings ?? [];
  const sorted = sortedReadings(readings);
  const findings: Finding[] = [];
  const doubles = readings.length - sorted.length;
  if (doubles > 0)
    findings.push(
      warning(
        'readings-twice',
        'Bench, the air',
        `${doubles} ${doubles === 1 ? 'moment has' : 'moments have'} more than one reading; the later one counts.`,
        'Nothing needs doing; take the doubles out of the file if the other one was right.',
      ),
    );
  const origin = originOf(muster);
  const holes = sorted.flatMap((r, i) => {
    const next = sorted[i + 1];
    const gap = next ? minutesUntil(origin, next.at) - minutesUntil(origin, r.at) : 0;
    return gap > HOUR ? [{ at: r.at, hours: gap / HOUR }] : [];
  });
  if (holes.length > 0) {
    const longest = holes.reduce((a, b) => (a.hours >= b.hours ? a : b));
    findings.push(
      warning(
        'readings-gap',
        'Bench, the air',
        `The readings have ${holes.length} ${holes.length === 1 ? 'gap' : 'gaps'}, the longest ${longest.hours.toFixed(1)} h after ${wallTime(origin.zone, longest.at).replace('T', ' ')}. ` +
          'Up to 6 h are drawn as a straight line, beyond that the day-and-night climate holds.',
        'Bring in the missing hours, or leave it so.',
      ),
    );
  }
  return findings;
}

/** Sessions in whose air layers of this muster cannot go on. */
function checkFitness(muster: Muster): Finding[] {
  const needs = new Set(muster.recipes.flatMap((r) => r.layers.map(needOf)));
  const spells = spellsOf(muster, horizonDays(muster));
  const origin = originOf(muster);
  const last = Math.max(0, ...muster.units.map((u) => minutesSince(origin, u.table)));
  const findings: Finding[] = [];
  for (const session of sessionsOf(muster, horizonDays(muster))) {
    if (session.start > last) break;
    for (const need of ['paint', 'lacquer'] as const) {
      if (!needs.has(need)) continue;
      let shut = 0;
      let why = '';
      for (let t = session.start; t < session.end; t += STEP) {
        const reason = unfitness(need, airAt(spells, t));
        if (reason === null) continue;
        shut += STEP;
        why ||= reason;
      }
      if (shut === 0) continue;
      findings.push(
        warning(
          'air-unfit',
          `Bench, ${moment(origin, session.start)}`,
          `${need === 'lacquer' ? 'Lacquer and spray cans' : 'Paint'} cannot go on for ${Math.min(shut, session.end - session.start)} min of this session: ${why}. The plan keeps them out of it.`,
          'Warm or dry the room, or leave that session to work without paint.',
        ),
      );
      break;
    }
  }
  return findings;
}

/** Cans belong outdoors; lacquer where spraying draws off. A bench that has not said so is asked. */
function checkExtraction(muster: Muster): Finding[] {
  const { hasExtraction } = muster.bench;
  if (hasExtraction) return [];
  const isTold = hasExtraction === false;
  return muster.recipes.flatMap((recipe) =>
    recipe.layers
      .filter((l) => !l.isOutdoors && (isTold ? needOf(l) === 'lacquer' : l.method === 'can'))
      .map((layer): Finding => ({
        rule: isTold ? 'spray-without-extraction' : 'can-indoors',
        severity: isTold ? 'error' : 'warning',
        isCraft: true,
        place: { recipe: recipe.id, layer: layer.id },
        where: `${recipe.name}, layer “${layer.name}”`,
        text: isTold
          ? 'Spray can or lacquer indoors, and this bench has no extraction: vapour and mist stay in the room.'
          : 'A spray can, and nothing says where: indoors its mist and gas stay in the room.',
        cure: isTold
          ? 'Spray it outdoors, or take a waterborne product by brush or airbrush.'
          : 'Spray it outdoors, in daylight and fit air; or say on the bench that spraying draws off to the outside.',
        fix: onRecipe(
          recipe.id,
          layer.substitute
            ? {
                ...layerFix(`Take “${layer.substitute.name}” instead`, layer, { usesSubstitute: true }),
                addsMinutes: layer.substitute.minutes * layer.substitute.coats - layer.minutes * layer.coats,
                addsDryMinutes: layer.substitute.dryMinutes - layer.dryMinutes,
              }
            : layerFix('Only outdoors', layer, { isOutdoors: true }),
        ),
      })),
  );
}
