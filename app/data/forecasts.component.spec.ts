/** The odds of the plan in hand: when they are asked for, what stays of them, and what the log is told. */
import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Subject } from 'rxjs';
import { beforeEach, describe, expect, it } from 'vitest';
import type { LogEntry } from '#core/log';
import type { Told } from '../workers/planningDesk';
import { Forecasts } from './forecasts';
import { Logbook } from './logbook';
import { Planner } from './planner';

/** Planner and log as far as they matter here; the test says what they do. */
const state = signal('planning');
const solved = signal<object | null>(null);
const entries = signal<readonly LogEntry[]>([]);
const rehearses = signal(false);
let asked: { readonly futures: number; readonly answers: Subject<Told> }[] = [];
let written: { readonly units: readonly { readonly unit: string }[] }[] = [];
let forecasts: Forecasts;

const worked = { id: 'e1', kind: 'done', step: 's', minutes: 5, at: '2027-03-01T19:00:00Z' } as LogEntry;
const given = (unit: string, due = '2027-03-05') => ({ unit, due }) as Told['given'][number];
const told = (futures: number, ...units: Told['given']): Told =>
  ({ forecast: { futures }, given: units, margins: [], latest: [] }) as unknown as Told;

/** A plan of which nothing moves any more. */
function planned(): void {
  solved.set({});
  state.set('planned');
  TestBed.tick();
}

beforeEach(() => {
  state.set('planning');
  solved.set(null);
  entries.set([]);
  rehearses.set(false);
  asked = [];
  written = [];
  const planner = {
    state,
    solved,
    odds: (futures: number) => {
      const answers = new Subject<Told>();
      asked.push({ futures, answers });
      return answers;
    },
  };
  const logbook = {
    entries,
    isRehearsal: () => rehearses(),
    add: (entry: (typeof written)[number]) => {
      written.push(entry);
      return Promise.resolve();
    },
  };
  TestBed.configureTestingModule({
    providers: [
      { provide: Planner, useValue: planner },
      { provide: Logbook, useValue: logbook },
    ],
  });
  forecasts = TestBed.inject(Forecasts);
  TestBed.tick();
});

describe('the odds of a plan', () => {
  it('are played once it is whole: a few futures, and all of them while somebody asks', () => {
    solved.set({});
    TestBed.tick();
    expect(asked).toEqual([]);
    planned();
    expect(asked.map((a) => a.futures)).toEqual([200]);
    const leave = forecasts.ask();
    TestBed.tick();
    expect(asked.map((a) => a.futures)).toEqual([200, 1000]);
    // Nobody waits for the few any more.
    expect(asked[0]!.answers.observed).toBe(false);
    leave();
    TestBed.tick();
    expect(asked.map((a) => a.futures)).toEqual([200, 1000, 200]);
  });

  it('of a plan that was stopped, or could not be bettered, are played as well', () => {
    solved.set({});
    state.set('stopped');
    TestBed.tick();
    expect(asked.map((a) => a.futures)).toEqual([200]);
  });

  it('stay when fewer futures are played anew, and go with their plan', () => {
    planned();
    asked[0]!.answers.next(told(1000, given('a')));
    asked[0]!.answers.next(told(40));
    expect(forecasts.told()!.forecast.futures).toBe(1000);
    // What is to be kept of them stays, though it is told once only.
    asked[0]!.answers.next(told(1000));
    expect(forecasts.told()!.given).toEqual([given('a')]);
    planned();
    expect(forecasts.told()).toBeNull();
  });

  it('that can’t be reckoned say so, until there is another plan', () => {
    planned();
    asked[0]!.answers.error(new Error('The odds could not be reckoned.'));
    expect(forecasts.fault()).toBe('The odds could not be reckoned.');
    planned();
    expect([forecasts.fault(), asked.length]).toEqual([null, 2]);
  });
});

describe('the first odds of a unit', () => {
  it('are kept in the log once the bench is in use, each for its date once', () => {
    planned();
    asked[0]!.answers.next(told(200, given('a'), given('b')));
    TestBed.tick();
    expect(written).toEqual([]);
    entries.set([worked]);
    TestBed.tick();
    expect(written.map((w) => w.units)).toEqual([[given('a'), given('b')]]);
  });

  it('are not kept again, but for another date', () => {
    const before = { id: 'e0', kind: 'forecast', at: worked.at, units: [given('a')] } as unknown as LogEntry;
    entries.set([before, worked]);
    planned();
    asked[0]!.answers.next(told(200, given('a'), given('a', '2027-04-01')));
    TestBed.tick();
    expect(written.map((w) => w.units)).toEqual([[given('a', '2027-04-01')]]);
  });

  it('of a rehearsal are nobody’s', () => {
    rehearses.set(true);
    entries.set([worked]);
    planned();
    asked[0]!.answers.next(told(200, given('a')));
    TestBed.tick();
    expect(written).toEqual([]);
  });
});
