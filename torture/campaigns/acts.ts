/** What a painter does in a season, each as the screens do it: through the same services. */
import { mergeLogs, standing, LOG_FORMAT, type EntryOf, type LogEntry } from '#core/log';
import {
  duplicatedUnit,
  instantOf,
  movedLayer,
  readMuster,
  storesOf,
  withRecipe,
  withUnit,
  withoutRecipe,
  withoutUnit,
  writeMuster,
  type Muster,
} from '#core/muster';
import { lastDone, lookedEntry, lookOver, reworkEntry } from '#core/session';
import { withDrafts } from '#core/entry';
import { LIBRARY } from '#core/library';
import { pickOne, pickSome, whole } from './chance';
import { dayAfter, ID_MARK } from './campaignMuster';
import { Life } from './life';

export interface Act {
  readonly name: string;
  /** how often it is done beside the others */
  readonly weight: number;
  /** can it be done now? */
  readonly can?: (life: Life) => boolean;
  /** does it; what must hold of this act in particular and does not, in words */
  readonly run: (life: Life) => Promise<string[]>;
}

const hasRun = (life: Life): boolean => life.bench.evening.run().length > 0;
const hasShelf = (life: Life): boolean => life.bench.evening.shelf().length > 0;
const hasLog = (life: Life): boolean => life.bench.evening.hasLog();
const isReal = (life: Life): boolean => life.tab.clock.rehearsal() === null;
const muster = (life: Life): Muster => {
  const inHand = life.tab.store.muster();
  if (!inHand) throw new Error('no muster is in hand');
  return inHand;
};

/** After Done what is in hand is another, or less of it, or somebody says why not; and what was in the cup is what left the bottles and the jar. */
async function changesTheRun(life: Life, press: () => Promise<void>): Promise<string[]> {
  const { evening, cup } = life.bench;
  const before = evening.run().map((s) => s.id);
  const chosen = new Set(evening.chosen().map((s) => s.id));
  const inCup = chosen.size === before.length ? volumeOf(cup.cup()) : null;
  const known = new Set(life.tab.logbook.entries().map((e) => e.id));
  life.tab.notices.dismiss();
  await press();
  await life.rest();
  const faults: string[] = [];
  const poured = life.tab.logbook
    .entries()
    .filter((e) => e.kind === 'done' && !known.has(e.id) && chosen.has(e.step));
  const left = poured.reduce((sum, e) => sum + (e.kind === 'done' ? volumeOfEntry(e) : 0), 0);
  if (inCup !== null && poured.length === chosen.size && Math.abs(left - inCup) > 0.01 * chosen.size)
    faults.push(`${inCup.toFixed(2)} ml were in the cup, and ${left.toFixed(2)} ml were logged`);
  const still = evening.run().filter((s) => chosen.has(s.id));
  const said = life.tab.notices.current()?.text ?? '';
  if (still.length > 0 && !/logged already|not saved/.test(said))
    faults.push(`Done left ${still.length} of ${before.length} in hand, and said “${said}”`);
  return faults;
}

const volumeOf = (cup: ReturnType<Life['bench']['cup']['cup']>): number | null =>
  cup && cup.parts.reduce((sum, p) => sum + p.ml, 0) + (cup.fromJar?.ml ?? 0);

const volumeOfEntry = (e: EntryOf<'done'>): number =>
  (e.used ?? []).reduce((sum, u) => sum + u.ml, 0) + (e.fromJar?.ml ?? 0);

/** The painter waits for the run in hand, a little more or a little less than she should. */
function toTheRun(life: Life): void {
  const [first] = life.bench.evening.run();
  if (!first) return;
  if (life.random() < 0.85) life.passUntil(first.start);
  life.pass(Math.max(0, first.end - first.start) * (0.4 + life.random() * 1.6));
}

const change = (
  name: string,
  weight: number,
  edit: (m: Muster, life: Life) => Muster,
  can: (life: Life) => boolean = () => true,
): Act => ({
  name,
  weight,
  can,
  run: async (life) => {
    const before = JSON.stringify(muster(life));
    const wasTaken = life.tab.store.change(name, (m) => edit(m, life));
    await life.tab.store.settled();
    if (!wasTaken || life.random() < 0.7) return [];
    // Undo gives back what was there, and redo what came of it.
    const after = JSON.stringify(muster(life));
    life.tab.store.undo();
    await life.tab.store.settled();
    const faults = JSON.stringify(muster(life)) === before ? [] : ['undo gave back something else'];
    life.tab.store.redo();
    await life.tab.store.settled();
    if (JSON.stringify(muster(life)) !== after) faults.push('redo gave back something else');
    return faults;
  },
});

const hasUnits = (life: Life): boolean => muster(life).units.length > 0;
const hasTwoUnits = (life: Life): boolean => muster(life).units.length > 1;
const hasRecipes = (life: Life): boolean => muster(life).recipes.some((r) => r.layers.length > 1);

const cannotBePlanned = (life: Life): boolean => ['faulty', 'impossible'].includes(life.tab.planner.state());

/** Takes the cure of an error where there is one, else takes the last change back; without either, the bench gets longer evenings. */
export async function setRight(life: Life): Promise<void> {
  const { store } = life.tab;
  const cure = store.findings().find((f) => f.severity === 'error' && f.fix);
  const wasCured = cure?.fix ? store.change(cure.fix.label, cure.fix.apply) : false;
  await store.settled();
  if (wasCured) return life.rest();
  if (store.undoLabel() !== null && store.depth() > 1) store.undo();
  else
    store.change('Longer evenings', (m) => ({
      ...m,
      bench: { ...m.bench, weekly: m.bench.weekly.map((w) => ({ ...w, from: '08:00' })) },
    }));
  await store.settled();
  return life.rest();
}

let fresh = 0;
const newId = (): string => `${ID_MARK}n${++fresh}`;

/** Done with the run in hand, whole. */
export const DONE: Act = {
  name: 'Done',
  weight: 22,
  can: hasRun,
  run: (life) => {
    toTheRun(life);
    return changesTheRun(life, () => life.bench.evening.done());
  },
};

export const ACTS: readonly Act[] = [
  DONE,
  {
    name: 'Done with some pieces',
    weight: 8,
    can: hasRun,
    run: (life) => {
      toTheRun(life);
      for (const step of pickSome(life.random, life.bench.evening.run(), 0.4)) life.bench.evening.tick(step);
      return changesTheRun(life, () => life.bench.evening.done());
    },
  },
  {
    name: 'Done, with the minutes typed in',
    weight: 4,
    can: hasRun,
    run: (life) => {
      toTheRun(life);
      const planned = life.bench.evening.chosen().reduce((sum, s) => sum + s.end - s.start, 0);
      return changesTheRun(life, () =>
        life.bench.evening.done(Math.max(1, Math.round(planned * (0.4 + 2 * life.random())))),
      );
    },
  },
  {
    name: 'Done too soon',
    weight: 3,
    can: hasRun,
    run: (life) => changesTheRun(life, () => life.bench.evening.done()),
  },
  {
    name: 'next piece by the pedal',
    weight: 2,
    can: hasRun,
    run: async (life) => {
      await life.bench.evening.nextPiece();
      return [];
    },
  },
  {
    name: 'a filler',
    weight: 2,
    can: (life) => life.bench.evening.fillers().length > 0,
    run: async (life) => {
      await life.bench.evening.doneFiller(pickOne(life.random, life.bench.evening.fillers()));
      return [];
    },
  },
  {
    name: 'the timer is started',
    weight: 2,
    can: hasRun,
    run: async (life) => {
      life.bench.evening.begin();
      life.pass(1 + whole(life.random, 40));
      return [];
    },
  },
  {
    name: 'time goes by',
    weight: 10,
    run: async (life) => {
      life.pass(1 + whole(life.random, 45));
      return [];
    },
  },
  {
    name: 'on to the next session',
    weight: 6,
    run: async (life) => {
      const next = life.bench.evening.session()?.next;
      if (next) life.passUntil(next.start);
      return [];
    },
  },
  {
    name: 'an evening is lost, and the rest planned from now',
    weight: 3,
    run: async (life) => {
      const next = life.bench.evening.session()?.next;
      if (next) life.passUntil(next.end + 90);
      await life.bench.evening.fromNow();
      return [];
    },
  },
  {
    name: 'not dry',
    weight: 4,
    can: (life) => life.bench.evening.isWaiting(),
    run: async (life) => {
      await life.bench.evening.notDry(1 + whole(life.random, 120));
      return [];
    },
  },
  {
    name: 'found dry',
    weight: 4,
    can: hasShelf,
    run: async (life) => {
      const row = pickOne(life.random, life.bench.evening.shelf());
      await life.bench.evening.foundDry(pickSome(life.random, row.pieces, 0.6).map((p) => p.resting.step));
      return [];
    },
  },
  {
    name: 'found touch-dry',
    weight: 2,
    can: hasShelf,
    run: async (life) => {
      const row = pickOne(life.random, life.bench.evening.shelf());
      await life.bench.evening.foundTouchDry(row.pieces.map((p) => p.resting.step));
      return [];
    },
  },
  {
    name: 'found wet',
    weight: 3,
    can: hasShelf,
    run: async (life) => {
      const row = pickOne(life.random, life.bench.evening.shelf());
      await life.bench.evening.foundWet(
        row.pieces.map((p) => p.resting.step),
        1 + whole(life.random, 240),
      );
      return [];
    },
  },
  {
    name: 'trouble with what is in hand',
    weight: 5,
    can: (life) => life.bench.evening.cures().length > 0,
    run: async (life) => {
      const { evening } = life.bench;
      if (life.random() < 0.5)
        for (const step of pickSome(life.random, evening.run(), 0.4)) evening.tick(step);
      const cures = evening.cures();
      if (cures.length > 0) await evening.mend(pickOne(life.random, cures));
      return [];
    },
  },
  {
    name: 'trouble with what stands on the shelf',
    weight: 6,
    can: hasShelf,
    run: async (life) => {
      const { evening } = life.bench;
      const row = pickOne(life.random, evening.shelf());
      evening.troubled.set(row.pieces.map((p) => p.resting.step));
      const cures = evening.cures();
      const again = cures.filter((c) => c.again.length > 0);
      const cure = again.length > 0 && life.random() < 0.6 ? pickOne(life.random, again) : cures[0];
      if (cure) await evening.mend(cure);
      evening.troubled.set(null);
      return [];
    },
  },
  {
    name: 'one more pass',
    weight: 1,
    can: hasRun,
    run: async (life) => {
      await life.bench.evening.oneMorePass();
      return [];
    },
  },
  {
    name: 'enough passes',
    weight: 1,
    can: (life) => (life.bench.evening.step()?.rounds ?? 1) > 1,
    run: (life) => changesTheRun(life, () => life.bench.evening.enough()),
  },
  {
    name: 'skip',
    weight: 2,
    can: hasRun,
    run: (life) => changesTheRun(life, () => life.bench.evening.skip()),
  },
  {
    name: 'take back',
    weight: 5,
    can: hasLog,
    run: async (life) => {
      const before = standing(life.tab.logbook.entries()).length;
      await life.bench.evening.takeBack();
      const after = standing(life.tab.logbook.entries()).length;
      return after < before ? [] : [`taking back left ${after} of ${before} entries standing`];
    },
  },
  {
    name: 'stop for tonight',
    weight: 2,
    run: async (life) => {
      await life.bench.evening.stop();
      return [];
    },
  },
  {
    name: 'a note',
    weight: 1,
    run: async (life) => {
      await life.bench.evening.keepNote('The cat was on the rack.', life.random() < 0.5);
      return [];
    },
  },
  {
    name: 'the pilot is judged',
    weight: 3,
    can: (life) => life.bench.evening.pilots().length > 0,
    run: async (life) => {
      const pilot = pickOne(life.random, life.bench.evening.pilots());
      await life.bench.evening.judge(pilot, life.random() < 0.6 ? 'approved' : 'changed');
      return [];
    },
  },
  {
    name: 'too much is mixed, and what is left goes into a jar',
    weight: 3,
    can: (life) => life.bench.cup.cup() !== null,
    run: async (life) => {
      const [part] = life.bench.cup.cup()?.parts ?? [];
      if (part) life.bench.cup.setPart(part.name, part.ml * (1 + life.random()));
      const faults = await changesTheRun(life, () => life.bench.evening.done());
      const left = life.bench.cup.leftOver();
      if (left?.keeps) await life.bench.cup.intoJar(left.ml);
      return faults;
    },
  },
  {
    name: 'a unit is looked over, and something is wrong',
    weight: 3,
    can: (life) => hasUnits(life) && life.tab.planner.plan() !== null,
    run: async (life) => {
      const plan = life.tab.planner.plan();
      const unit = pickOne(life.random, muster(life).units);
      if (!plan) return [];
      const log = life.tab.logbook.entries();
      const { items } = lookOver(muster(life), unit, plan, log, life.minute);
      if (items.length === 0) return [];
      const item = pickOne(life.random, items);
      const [piece] = item.pieces;
      const on = piece === undefined ? null : lastDone(plan, log, piece);
      const wrong = on !== null && life.random() < 0.7;
      await life.tab.logbook.addAll([
        ...(wrong
          ? [
              reworkEntry({
                trouble: 'Looked over before the table',
                cure: 'Put right',
                minutes: 6,
                dryMinutes: 30,
                on,
                again: [],
              }),
            ]
          : []),
        lookedEntry(unit, item, wrong ? 'rework' : 'good'),
      ]);
      if (wrong) life.tab.planner.replan();
      return [];
    },
  },
  {
    name: 'reload',
    weight: 4,
    run: async (life) => {
      if (life.random() < 0.4 && hasUnits(life)) {
        // At the worst moment: something has just been typed.
        life.tab.store.change('typed', (m) => ({
          ...m,
          name: `A season at the fen ${whole(life.random, 99)}`,
        }));
        await life.tab.store.settled();
      }
      await life.reload();
      return [];
    },
  },
  {
    name: 'another tab logs and edits',
    weight: 3,
    can: isReal,
    run: async (life) => {
      const other = await Life.openTab(life.tab.time);
      const [step] = life.bench.evening.run();
      if (step) await other.logbook.add({ kind: 'done', step: step.id, minutes: step.end - step.start });
      other.store.change('named in another tab', (m) => ({ ...m, name: `Fen ${whole(life.random, 1000)}` }));
      life.tab.store.change('dated here', (m) => ({
        ...m,
        units: m.units.map((u, k) => (k === 0 ? { ...u, importance: 1 + whole(life.random, 5) } : u)),
      }));
      await other.store.settled();
      await life.tab.store.settled();
      const until = Date.now() + 20_000;
      const isCaughtUp = (): boolean =>
        JSON.stringify(life.tab.store.muster()) === JSON.stringify(other.store.muster()) &&
        life.tab.logbook.entries().length === other.logbook.entries().length;
      while (!isCaughtUp() && Date.now() < until) await new Promise((resolve) => setTimeout(resolve, 2));
      const faults = isCaughtUp() ? [] : ['two tabs do not come to the same'];
      other.close();
      return faults;
    },
  },
  {
    name: 'a rehearsal',
    weight: 3,
    can: isReal,
    run: async (life) => {
      const before = JSON.stringify(life.tab.logbook.entries());
      const { time } = life.tab;
      life.tab.clock.rehearse(life.tab.time);
      const faults: string[] = [];
      for (let k = 0; k < 3 && hasRun(life); k++) faults.push(...(await DONE.run(life)));
      life.tab.clock.backToReal();
      life.tab.time = time;
      await life.rest();
      if (JSON.stringify(life.tab.logbook.entries()) !== before) faults.push('a rehearsal left its entries');
      return faults;
    },
  },
  {
    name: 'the clock was wrong',
    weight: 2,
    can: (life) => isReal(life) && hasRun(life),
    run: async (life) => {
      const { time } = life.tab;
      life.pass(60 * (1 + whole(life.random, 30)));
      await life.bench.evening.done();
      life.tab.time = time;
      life.pass(3);
      await life.rest();
      if (life.random() < 0.6) await life.bench.evening.putClockRight();
      else await life.bench.evening.forgetAhead();
      await life.rest();
      return life.bench.evening.ahead() === null ? [] : ['entries still lie ahead of the clock'];
    },
  },
  {
    name: 'the log is exported and merged',
    weight: 2,
    can: isReal,
    run: async (life) => {
      const count = await life.tab.logbook.bringIn(life.tab.logbook.file());
      return count === 0 ? [] : [`merging the log with itself added ${count} entries`];
    },
  },
  {
    name: 'a log of another device is merged',
    weight: 2,
    can: (life) => isReal(life) && hasRun(life),
    run: async (life) => {
      const [step] = life.bench.evening.run();
      const entry: LogEntry = {
        id: `${ID_MARK}d${whole(life.random, 1e9)}`,
        at: instantOf(new Date(life.tab.time.getTime() - 60_000)),
        kind: 'done',
        step: step!.id,
        minutes: 5,
      };
      await life.tab.logbook.bringIn(JSON.stringify({ format: LOG_FORMAT, entries: [entry] }));
      life.tab.planner.replan();
      return [];
    },
  },
  {
    name: 'the muster is exported, and imported as another',
    weight: 1,
    can: isReal,
    run: async (life) => {
      const before = muster(life);
      const read = readMuster(writeMuster(before));
      const id = life.tab.store.openId;
      await life.tab.store.add(read, 'Imported');
      const faults =
        JSON.stringify(muster(life)) === JSON.stringify(before)
          ? []
          : ['what was imported is not what was exported'];
      if (life.tab.logbook.entries().length > 0) faults.push('an imported muster has a log of another');
      if (id !== null) await life.tab.store.open(id);
      await life.tab.logbook.ready;
      return faults;
    },
  },
  change(
    'A unit is renamed',
    2,
    (m, life) => {
      const unit = pickOne(life.random, m.units);
      return withUnit(m, { ...unit, name: `${unit.name.slice(0, 20)} II` });
    },
    hasUnits,
  ),
  change(
    'A date is moved',
    3,
    (m, life) => {
      const unit = pickOne(life.random, m.units);
      const day = dayAfter(instantOf(life.tab.time).slice(0, 10), 1 + whole(life.random, 20));
      return withUnit(m, { ...unit, table: `${day}T12:00` });
    },
    hasUnits,
  ),
  change(
    'A unit is added',
    2,
    (m, life) => {
      const recipe = pickOne(life.random, [...m.recipes, ...LIBRARY.slice(0, 4)]);
      return withDrafts(
        m,
        [
          {
            name: `Late order ${whole(life.random, 99)}`,
            table: null,
            pieces: [{ name: 'Duck', figures: 1, recipe: recipe.id }],
          },
        ],
        LIBRARY,
        `${dayAfter(instantOf(life.tab.time).slice(0, 10), 14)}T12:00`,
        newId,
      );
    },
    (life) => muster(life).units.length < 5,
  ),
  change(
    'A unit is copied',
    1,
    (m, life) => duplicatedUnit(m, pickOne(life.random, m.units).id, 1, newId),
    (life) => hasUnits(life) && muster(life).units.length < 4,
  ),
  change('A unit is deleted', 1, (m, life) => withoutUnit(m, pickOne(life.random, m.units).id), hasTwoUnits),
  change(
    'A recipe is deleted',
    0.5,
    (m, life) => withoutRecipe(m, pickOne(life.random, m.recipes).id),
    (life) => muster(life).recipes.length > 1,
  ),
  change(
    'A piece changes its recipe',
    1,
    (m, life) => {
      const unit = pickOne(life.random, m.units);
      const recipe = pickOne(life.random, m.recipes);
      return withUnit(m, {
        ...unit,
        pieces: unit.pieces.map((p, k) => (k === 0 ? { ...p, recipe: recipe.id } : p)),
      });
    },
    (life) => hasUnits(life) && hasRecipes(life),
  ),
  change(
    'A layer takes longer',
    3,
    (m, life) => {
      const recipe = pickOne(
        life.random,
        m.recipes.filter((r) => r.layers.length > 1),
      );
      const layer = pickOne(life.random, recipe.layers);
      return withRecipe(m, {
        ...recipe,
        layers: recipe.layers.map((l) => (l === layer ? { ...l, minutes: 1 + whole(life.random, 25) } : l)),
      });
    },
    hasRecipes,
  ),
  change(
    'A layer is deleted',
    1,
    (m, life) => {
      const recipe = pickOne(
        life.random,
        m.recipes.filter((r) => r.layers.length > 1),
      );
      const layer = pickOne(life.random, recipe.layers);
      return withRecipe(m, { ...recipe, layers: recipe.layers.filter((l) => l !== layer) });
    },
    hasRecipes,
  ),
  change(
    'A layer is moved',
    1,
    (m, life) => {
      const recipe = pickOne(
        life.random,
        m.recipes.filter((r) => r.layers.length > 1),
      );
      const n = recipe.layers.length;
      return withRecipe(m, movedLayer(recipe, whole(life.random, n), whole(life.random, n)));
    },
    hasRecipes,
  ),
  change(
    'A helper comes',
    1,
    (m, life) => ({
      ...m,
      bench: {
        ...m.bench,
        people: [...m.bench.people, { id: newId(), name: pickOne(life.random, ['Helper', 'Teal', 'Me']) }],
      },
    }),
    (life) => muster(life).bench.people.length < 3,
  ),
  change(
    'Somebody leaves',
    1,
    (m) => ({ ...m, bench: { ...m.bench, people: m.bench.people.slice(0, -1) } }),
    (life) => muster(life).bench.people.length > 1,
  ),
  change(
    'An evening is given up',
    2,
    (m, life) => ({
      ...m,
      bench: {
        ...m.bench,
        exceptions: [
          ...m.bench.exceptions,
          {
            id: newId(),
            date: dayAfter(instantOf(life.tab.time).slice(0, 10), 1 + whole(life.random, 10)),
            sessions: [],
          },
        ],
      },
    }),
    (life) => muster(life).bench.exceptions.length < 6,
  ),
  change('A journey: the bench is in another zone', 0.5, (m, life) => ({
    ...m,
    bench: {
      ...m.bench,
      timeZone: pickOne(life.random, ['Europe/Vienna', 'America/Chicago', 'Asia/Kolkata']),
    },
  })),
  change('The air is read', 2, (m, life) => ({
    ...m,
    bench: {
      ...m.bench,
      readings: [0, 1, 2].map((h) => ({
        at: instantOf(new Date(life.tab.time.getTime() + h * 3_600_000)),
        celsius: 5 + whole(life.random, 25),
        humidityPercent: 30 + whole(life.random, 69),
      })),
    },
  })),
  change(
    'A bottle is bought',
    2,
    (m, life) => {
      const { products } = storesOf(m);
      return {
        ...m,
        stores: {
          ...storesOf(m),
          products: products.map((p, k) =>
            k === 0 ? { ...p, leftMl: p.leftMl + 17, leftAt: instantOf(life.tab.time) } : p,
          ),
        },
      };
    },
    (life) => storesOf(muster(life)).products.length > 0,
  ),
  {
    name: 'what keeps it from being planned is set right',
    weight: 30,
    can: cannotBePlanned,
    run: async (life) => {
      await setRight(life);
      return [];
    },
  },
  {
    name: 'undo',
    weight: 3,
    can: (life) => life.tab.store.undoLabel() !== null && life.tab.store.depth() > 1,
    run: async (life) => {
      life.tab.store.undo();
      await life.tab.store.settled();
      return [];
    },
  },
  {
    name: 'redo',
    weight: 1,
    can: (life) => life.tab.store.redoLabel() !== null,
    run: async (life) => {
      life.tab.store.redo();
      await life.tab.store.settled();
      return [];
    },
  },
  {
    name: 'search longer',
    weight: 1,
    can: (life) => life.tab.planner.state() === 'planned',
    run: async (life) => {
      life.tab.planner.searchLonger();
      return [];
    },
  },
  {
    name: 'plan again',
    weight: 3,
    run: async (life) => {
      life.tab.planner.replan();
      return [];
    },
  },
];

/** The log as anybody reads it who has only the file. */
export function reread(log: readonly LogEntry[]): LogEntry[] {
  return mergeLogs(JSON.parse(JSON.stringify(log)) as LogEntry[], []);
}
