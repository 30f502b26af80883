import type * as craft from './craft';

export type Craft = typeof craft;

const MOST_TRIES = 5;
const WAIT_MS = 400;

/** Fetched once, with the first muster that there is: a beginning needs none of it. A server that stumbles is asked again. */
export async function fetchCraft(): Promise<Craft> {
  for (let tries = 1; ; tries++)
    try {
      return await import('./craft');
    } catch (error) {
      if (tries === MOST_TRIES) throw error;
      await new Promise((resolve) => setTimeout(resolve, tries * WAIT_MS));
    }
}
