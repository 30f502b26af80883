/** What is being written, and what could not be: one sign for all views, which goes out only when something has truly been written. */
import { OutdatedError } from './outdated';
import { computed, Injectable, signal } from '@angular/core';

@Injectable({ providedIn: 'root' })
export class Keeping {
  private readonly waiting = signal<ReadonlyMap<object, number>>(new Map());
  /** changes and entries that are shown and not written yet */
  readonly unwritten = computed(() => [...this.waiting().values()].reduce((sum, n) => sum + n, 0));
  /** null: all that was written went well; otherwise why not, and what to do */
  readonly trouble = signal<string | null>(null);

  /** So many things of one keeper are waiting to be written. */
  waits(keeper: object, count: number): void {
    this.waiting.update((map) => new Map(map).set(keeper, count));
  }

  wrote(): void {
    this.trouble.set(null);
  }

  failed(what: string, error: unknown): void {
    this.trouble.set(
      error instanceof OutdatedError
        ? `${error.message}. What you change here is not saved.`
        : `${what} not saved in this browser (${firstLine(error)}). We try again; export it as a file before you close the page.`,
    );
  }
}

function firstLine(error: unknown): string {
  return (error instanceof Error ? error.message : String(error)).split('\n')[0]!;
}
