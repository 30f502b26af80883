/** `npm run -s plan -- muster.json [--seconds 5] [--seed 1] [--out plan.json]`: a whole muster planned without a screen. */
import { writeFileSync } from 'node:fs';

import { settle, startSearch } from '#core/kernel';
import { checkMuster, conflictInWords, hasErrors, present, runSheet } from '#core/plan';
import { handNames, pose, withHands } from '#core/session';
import { dateTimeAfter, type Muster, MusterFileError, parseMuster } from '#core/muster';
import { shoppingList } from '#core/stores';
import { fail, readArguments, readJson } from './arguments';

const BAD_DOCUMENT = 2;
const UNKNOWN = 3;

const { file, numbers, out } = readArguments(process.argv.slice(2), ['seconds', 'seed', 'iterations']);
const muster = read();
const findings = checkMuster(muster);
if (hasErrors(findings))
  fail(BAD_DOCUMENT, findings.map((f) => `${f.severity}: ${f.where}: ${f.text} ${f.cure}`).join('\n'));

/** Up to this share of the search several people's hands are only counted; then each step has somebody's name. */
const COUNTED = 0.4;
/** So many tries to give the counted plan names. */
const NAMING = 400;

const iterations = numbers.get('iterations');
const budget = iterations === undefined ? (numbers.get('seconds') ?? 5) * 1000 : Infinity;
const begun = performance.now();
const seed = numbers.get('seed') ?? 1;
let posed = pose(muster, [], null);
let before = 0;
let search = startSearch(posed.problem, { seed, progress: spent });
let isNamed = muster.bench.people.length < 2;
do {
  search.step(1);
  if (isNamed || spent() < COUNTED || search.best().cost === null) continue;
  isNamed = true;
  const counted = search.best();
  const named = withHands(posed, handNames(posed, counted));
  const own = startSearch(named.problem, { seed, progress: spent, previous: counted });
  while (own.best().cost === null && !own.isStuck && own.tried < NAMING && spent() < 1) own.step(1);
  // Where names leave no plan, counted hands have to do.
  if (own.best().cost === null) continue;
  before = search.tried;
  [posed, search] = [named, own];
} while (!search.isDone && spent() < 1);
const solution = settle(posed.problem, search.best());

function spent(): number {
  return iterations === undefined
    ? (performance.now() - begun) / budget
    : (before + search.tried) / Math.max(1, iterations);
}

if (solution.status === 'unknown')
  fail(UNKNOWN, 'No plan was found in this time, and none was proved impossible.');
const text = `${JSON.stringify(solution.status === 'infeasible' ? noPlan() : plan(), null, 1)}\n`;
if (out === null) process.stdout.write(text);
else writeFileSync(out, text);

function read(): Muster {
  try {
    return parseMuster(readJson(file));
  } catch (error) {
    if (error instanceof MusterFileError) fail(BAD_DOCUMENT, error.message);
    throw error;
  }
}

function noPlan(): object {
  return {
    format: 'patient-muster-plan/1',
    muster: muster.name,
    status: 'infeasible',
    why: conflictInWords(solution.conflict!, posed, muster),
  };
}

function plan(): object {
  const shown = present(muster, posed, solution);
  const at = (minute: number): string => dateTimeAfter(shown.origin, minute);
  return {
    format: 'patient-muster-plan/1',
    muster: muster.name,
    status: solution.status,
    cost: solution.cost,
    bound: solution.bound,
    units: shown.units.map((u) => ({
      id: u.id,
      name: u.name,
      table: at(u.due),
      ready: at(u.ready),
      lateMinutes: u.lateMinutes,
      spareMinutes: u.spareMinutes,
    })),
    sessions: shown.sessions
      .filter((s) => s.steps.length > 0)
      .map((s) => {
        const sheet = runSheet(shown, s.index, muster.bench.cupMl);
        return {
          from: at(s.start),
          to: at(s.end),
          busyPercent: Math.round(s.busy * 100),
          runs: sheet.entries.map((e) => ({
            from: at(e.start),
            to: at(e.end),
            setupMinutes: e.setup,
            do: `${e.verb} ${e.name}`,
            ...(e.who === null ? {} : { who: e.who }),
            ...(e.tool === null ? {} : { with: e.tool }),
            mixture: e.layer.mixture,
            coats: e.coats[1],
            millilitres: e.mix === null ? 0 : round(e.mix.ml),
            mix:
              e.mix?.components.map((c) => ({ name: c.name, millilitres: round(c.ml), drops: c.drops })) ??
              [],
            cups: e.mix?.cups ?? 0,
            amountFrom: e.mix?.from ?? null,
            steps: e.pieces.map((p) => p.step),
            pieces: e.pieces.map((p) => `${p.name} (${p.unit})`),
            dryFor: at(e.dryAt),
            closes: e.closes === null ? null : at(e.closes),
            cautions: e.cautions,
          })),
        };
      }),
    shopping: shoppingList(muster, shown),
    findings,
  };
}

function round(ml: number): number {
  return Math.round(ml * 100) / 100;
}
