/** The services of the evening in a tab without a page. */
import { Injector } from '@angular/core';
import { own, type TestTab } from '../../data/testing/services';
import { CupInHand } from '../cupInHand';
import { Evening } from '../evening';
import { RunInHand } from '../runInHand';

export interface TestBench {
  readonly evening: Evening;
  readonly cup: CupInHand;
  readonly inHand: RunInHand;
}

/** What Tonight shows in a tab, each time as if the view were opened. */
export function atTheBench(tab: TestTab): TestBench {
  const injector = Injector.create({
    parent: tab.injector,
    providers: [own(RunInHand), own(CupInHand), own(Evening)],
  });
  return {
    evening: injector.get(Evening),
    cup: injector.get(CupInHand),
    inHand: injector.get(RunInHand),
  };
}

/** Resolves when the plan of the muster in hand stands, or there is none to be had. */
export async function planSettled({ planner, store }: TestTab): Promise<void> {
  await store.settled();
  const isUnderWay = (): boolean => planner.state() === 'waiting' || planner.state() === 'planning';
  while (isUnderWay()) await new Promise((resolve) => setTimeout(resolve, 1));
}
