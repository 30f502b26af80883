/** The muster in hand: a signal to read, one way to change it, undo and redo that outlive a reload. */
import { computed, inject, Injectable, signal } from '@angular/core';
import { concatMap, Subject } from 'rxjs';
import { parseMuster } from '#core/exchange';
import { localDateTime, type Muster } from '#core/muster';
import { checkMuster } from '#core/plan';
import { fenMuster, mondayFrom } from '#demo/fen';
import { Database, type KeptState } from './database';
import { NOW } from './environment';
import { Notices } from './notices';

@Injectable({ providedIn: 'root' })
export class MusterStore {
  private readonly database = inject(Database);
  private readonly notices = inject(Notices);
  private readonly now = inject(NOW);

  private readonly history = signal<readonly KeptState[]>([]);
  private readonly at = signal(-1);
  private readonly writes = new Subject<() => Promise<void>>();

  readonly muster = computed<Muster | null>(() => this.history()[this.at()]?.muster ?? null);
  readonly findings = computed(() => {
    const muster = this.muster();
    return muster ? checkMuster(muster) : [];
  });
  readonly undoLabel = computed(() => (this.at() > 0 ? this.history()[this.at()]!.label : null));
  readonly redoLabel = computed(() => this.history()[this.at() + 1]?.label ?? null);
  /** null: everything is kept; otherwise why not */
  readonly trouble = signal<string | null>(null);
  private readonly loaded: Promise<void>;

  constructor() {
    // One write after the other, in the order of the changes; a failure is told and stops nothing.
    this.writes
      .pipe(
        concatMap((write) =>
          write().then(
            () => this.trouble.set(null),
            (error: unknown) =>
              this.trouble.set(
                `The last change is not kept in this browser (${String(error)}). Take the muster away as a file before you close the page.`,
              ),
          ),
        ),
      )
      .subscribe();
    this.loaded = this.load();
  }

  /** Resolves when what was kept has been read. */
  ready(): Promise<void> {
    return this.loaded;
  }

  /** Puts a new state in the place of the current one; `label` says what was done, for undo. */
  change(label: string, edit: (muster: Muster) => Muster): void {
    const before = this.muster();
    if (!before) return;
    const muster = edit(before);
    if (muster === before) return;
    this.push(muster, label);
  }

  /** `change`, and a notice that offers to take it back: for all that removes something. */
  remove(label: string, edit: (muster: Muster) => Muster): void {
    this.change(label, edit);
    this.notices.tell(label, { word: 'Undo', run: () => this.undo() });
  }

  replaceWith(muster: Muster, label: string): void {
    this.push(muster, label);
    this.notices.tell(label, { word: 'Undo', run: () => this.undo() });
  }

  undo(): void {
    if (this.at() > 0) this.moveTo(this.at() - 1);
  }

  redo(): void {
    if (this.at() < this.history().length - 1) this.moveTo(this.at() + 1);
  }

  /** The demo muster, from the coming Monday on. */
  loadDemo(): void {
    this.replaceWith(this.demo(), 'Demo muster loaded');
  }

  private demo(): Muster {
    return fenMuster(mondayFrom(localDateTime(this.now()).slice(0, 10)));
  }

  private async load(): Promise<void> {
    try {
      const kept = await this.database.load();
      if (kept) {
        const current = kept.states[kept.current];
        // What an older version or a broken disk has left is read like a file: checked, never trusted.
        const sound = kept.states.filter((s) => isMuster(s.muster));
        if (sound.length < kept.states.length)
          this.trouble.set(
            `${kept.states.length - sound.length} of ${kept.states.length} kept states of the muster can’t be read and are passed over.`,
          );
        if (sound.length > 0) {
          this.history.set(sound);
          this.at.set(current && sound.includes(current) ? sound.indexOf(current) : sound.length - 1);
          return;
        }
      }
      const first = await this.database.add(this.demo(), 'Demo muster loaded', null);
      this.history.set([first]);
      this.at.set(0);
    } catch (error) {
      this.trouble.set(
        `What this browser kept can’t be read (${String(error)}). The demo muster is shown instead; what was kept is left as it was until you change something.`,
      );
      this.history.set([{ muster: this.demo(), label: 'Demo muster loaded', at: this.now() }]);
      this.at.set(0);
    }
  }

  private push(muster: Muster, label: string): void {
    const state: KeptState = { muster, label, at: this.now() };
    const kept = [...this.history().slice(0, this.at() + 1), state];
    this.history.set(kept);
    this.at.set(kept.length - 1);
    const index = kept.length - 1;
    this.writes.next(async () => {
      const before = this.history()[index - 1];
      const written = await this.database.add(muster, label, before?.id ?? null);
      this.history.update((list) => list.map((s) => (s === state ? written : s)));
    });
  }

  private moveTo(index: number): void {
    this.at.set(index);
    this.writes.next(async () => {
      const id = this.history()[index]?.id;
      if (id !== undefined) await this.database.setCurrent(id);
    });
  }
}

function isMuster(value: unknown): boolean {
  try {
    parseMuster(value);
    return true;
  } catch {
    return false;
  }
}
