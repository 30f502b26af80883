/**
 * The muster in hand: a signal to read, one door to change it, undo and redo that outlive a reload. A change is shown at once and written
 * in the order in which it was made; what another tab has written meanwhile comes in within a moment.
 */
import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import type { Subscription } from 'dexie';
import { BehaviorSubject } from 'rxjs';

import {
  admit,
  type Admitted,
  type Change,
  differences,
  type Edit,
  faultWords,
  GoneError,
  instantOf,
  type Muster,
  parseMuster,
  touches,
  wallTime,
  benchOf,
  MUSTER_FORMAT,
} from '#core/muster';
import type { Finding } from '#core/recipe';
import { Database, FIRST, type Kept, type KeptState } from './database';
import { type Craft, fetchCraft } from './fetchCraft';
import { NEW_ID, NOW, TAB, WANTS_DEMO, ZONE } from './environment';
import { Keeping } from './keeping';
import { OutdatedError } from './outdated';
import { Notices } from './notices';
import { recall, remember } from './tabMemory';
import { Refusals } from './refusals';

const OPEN = 'open muster';
/** No revision: what other tabs wrote is still to be read. */
const BEHIND = -1;
/** A write that failed is tried again so often. */
const RETRY_MS = 5000;

/** What waits to be written. */
type Deed =
  | (Change & {
      readonly kind: 'change';
      /** the muster on which it was made, and what it became */
      readonly before: string;
      readonly after: string;
    })
  | { readonly kind: 'go'; readonly steps: 1 | -1 };

/** What looking a muster over has found, and what counts as an error. */
interface Checked {
  readonly found: () => readonly Finding[];
  readonly hasErrors: (found: readonly Finding[]) => boolean;
}

/** From here on a muster is looked over apart from being drawn. */
const MANY_PIECES = 300;

@Injectable({ providedIn: 'root' })
export class MusterStore {
  private readonly database = inject(Database);
  private readonly keeping = inject(Keeping);
  private readonly notices = inject(Notices);
  private readonly refusals = inject(Refusals);
  private readonly now = inject(NOW);
  private readonly newId = inject(NEW_ID);
  private readonly tab = inject(TAB);
  private readonly zone = inject(ZONE);
  private readonly wantsDemo = inject(WANTS_DEMO);

  private readonly shown = signal<Muster | null>(null);
  /** states as they are kept, oldest first */
  private readonly states = signal<readonly KeptState[]>([]);
  private readonly current = signal(0);
  private readonly queue = signal<readonly Deed[]>([]);
  /** the newest state of which this tab has seen all that went before */
  private seen = 0;
  /** of the muster as this tab knows it, and as the database last said */
  private revision = 0;
  private newest = 0;
  /** the muster as it is kept, without what waits; and as it is shown */
  private keptText = '';
  private shownText = '';
  private isWriting = false;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private watching: Subscription | undefined;

  private readonly open$ = new BehaviorSubject<string | null>(null);
  /** id of the muster in hand; null while there is none that is kept */
  readonly opened = this.open$.asObservable();
  readonly muster = this.shown.asReadonly();
  private readonly shown$ = new BehaviorSubject<Muster | null>(null);
  /** the muster in hand, each time that it changes */
  readonly changes = this.shown$.asObservable();
  private craft: Craft | null = null;
  /** what looking over the muster has found, worked out when it is asked for or turn by turn */
  private readonly checked = signal<Checked>({ found: () => [], hasErrors: () => false });
  readonly findings = computed(() => this.checked().found());
  /** does anything keep a plan from being made? */
  readonly hasErrors = computed(() => this.checked().hasErrors(this.findings()));
  private readonly place = computed(() => this.states().findIndex((s) => s.id === this.current()));
  private readonly waiting = computed(() => this.queue().filter((d) => d.kind === 'change'));
  readonly undoLabel = computed(() => {
    const last = this.waiting()[this.waiting().length - 1];
    return last?.label ?? (this.place() > 0 ? this.states()[this.place()]!.label : null);
  });
  readonly redoLabel = computed(() =>
    this.waiting().length > 0 ? null : (this.states()[this.place() + 1]?.label ?? null),
  );
  /** changes that undo can take back */
  readonly depth = computed(() => Math.max(0, this.place()) + this.waiting().length);
  /** what was kept has been read: with no muster in hand then, there is none */
  readonly isRead = signal(false);
  /** why what was kept could not be read; null when it could */
  readonly trouble = signal<string | null>(null);
  private readonly loaded: Promise<void>;

  constructor() {
    inject(DestroyRef).onDestroy(() => {
      this.watching?.unsubscribe();
      clearTimeout(this.retry);
    });
    this.loaded = this.begin().finally(() => this.isRead.set(true));
  }

  get openId(): string | null {
    return this.open$.value;
  }

  /** Resolves when what was kept has been read. */
  ready(): Promise<void> {
    return this.loaded;
  }

  /** Resolves when all that was done so far is written, or could not be. */
  async settled(): Promise<void> {
    while (this.isWriting) await new Promise((resolve) => setTimeout(resolve, 2));
  }

  /**
   * Changes the muster: the edit is taken apart, references are mended, the whole is checked, and only then it counts.
   * @param label what was done, for undo
   * @returns whether it was taken; the reason of a refusal goes to the field, or is told
   */
  change(label: string, edit: (muster: Muster) => Muster): boolean {
    const before = this.shown();
    if (!before) return false;
    const edits = differences(before, edit(before));
    return edits.length > 0 && this.accept(label, edits, admit(before, edits));
  }

  /**
   * A change that was worked out and checked away from the page.
   * @param before the muster that it was worked out from: where it is not the one in hand any more, nothing is taken
   */
  changeTo(label: string, before: Muster, admitted: Admitted): boolean {
    if (this.shown() !== before) {
      this.refusals.say('The muster has changed meanwhile: look at it, and do it again.');
      return false;
    }
    return this.accept(label, admitted.ok ? differences(before, admitted.muster) : [], admitted);
  }

  private accept(label: string, edits: readonly Edit[], admitted: Admitted): boolean {
    if (!admitted.ok) {
      this.refusals.say(faultWords(admitted.faults));
      return false;
    }
    const textBefore = this.shownText;
    this.show(admitted.muster, JSON.stringify(admitted.muster));
    if (admitted.notes.length > 0) this.tellWithUndo(inFew(admitted.notes));
    this.enqueue({ kind: 'change', label, edits, before: textBefore, after: this.shownText });
    return true;
  }

  /** `change`, and a notice that offers to take it back: for all that removes something. */
  remove(label: string, edit: (muster: Muster) => Muster): boolean {
    this.notices.dismiss();
    if (!this.change(label, edit)) return false;
    const mended = this.notices.current();
    this.tellWithUndo(mended ? `${label}. ${mended.text}` : label);
    return true;
  }

  undo(): void {
    if (this.isHalted()) {
      // What could not be written is taken back before it ever is.
      this.queue.update((q) => q.slice(0, -1));
      this.keeping.waits(this, this.queue().length);
      this.showKept();
    } else if (this.undoLabel() !== null) this.enqueue({ kind: 'go', steps: -1 });
  }

  redo(): void {
    if (this.redoLabel() !== null) this.enqueue({ kind: 'go', steps: 1 });
  }

  /** Puts a new muster beside the others and takes it in hand. @throws Error when it cannot be written */
  async add(muster: Muster, label: string): Promise<void> {
    const id = this.newId();
    try {
      await this.database.create(id, muster, label);
    } catch (error) {
      this.keeping.failed(`“${muster.name}” is`, error);
      throw error;
    }
    this.keeping.wrote();
    await this.open(id);
  }

  /** The demo as one more muster, from the coming Monday on. */
  async addDemo(): Promise<void> {
    await this.add(await this.demo(), 'Demo muster loaded');
  }

  /** A muster of one's own: the bench of the one in hand, and nothing else. */
  async addEmpty(): Promise<void> {
    const bench = this.shown()?.bench ?? benchOf(this.zone);
    const today = this.today();
    await this.add(
      {
        format: MUSTER_FORMAT,
        name: 'New muster',
        startsOn: `${today}T18:00`,
        bench: { ...bench, readings: [], exceptions: [] },
        recipes: [],
        units: [],
      },
      'New muster',
    );
  }

  /** Takes another muster in hand; what waits of this one is written first. @throws Error when there is no such muster */
  async open(id: string): Promise<void> {
    await this.settled();
    if (this.queue().length > 0)
      throw new Error(
        'The muster in hand has changes that could not be written yet; export it as a file first.',
      );
    await this.take(id);
    await this.database.keepSetting(OPEN, id).catch(() => undefined);
    remember(OPEN, id);
  }

  /** @param ahead so many hours before midnight it is tomorrow already */
  private today(ahead = 0): string {
    const at = new Date(this.now().getTime() + ahead * 3_600_000);
    return wallTime(this.zone, instantOf(at)).slice(0, 10);
  }

  /** Fetched when it is asked for: most never do. */
  private async demo(): Promise<Muster> {
    const { fenMuster, mondayFrom } = await import('#demo/fen');
    // From ten on a Monday its first evening is over.
    return fenMuster(mondayFrom(this.today(2)), this.zone);
  }

  private tellWithUndo(text: string): void {
    this.notices.tell(text, { word: 'Undo', run: () => this.undo() });
  }

  // What is kept, and what other tabs keep.

  private async begin(): Promise<void> {
    try {
      if (await this.database.isOutdated())
        this.keeping.failed('What is changed here is', new OutdatedError());
      const musters = await this.database.musters();
      const wanted = [recall(OPEN), await this.database.setting(OPEN)];
      const open =
        wanted.map((id) => musters.find((m) => m.id === id && m.binnedAt === null)).find((m) => m) ??
        musters.find((m) => m.binnedAt === null && !m.isArchived);
      if (open) await this.take(open.id);
      else if (musters.length === 0 && this.wantsDemo) {
        // Two tabs of a fresh browser come to the same first muster: only one of them can make it.
        await this.database.create(FIRST, await this.demo(), 'Demo muster loaded').catch(() => undefined);
        await this.open(FIRST);
      }
    } catch (error) {
      this.trouble.set(
        `What this browser kept can’t be read (${String(error)}). The demo muster is shown instead; what was kept is left as it was.`,
      );
      // Nothing is in hand: what is typed now is not written over what is there.
      this.open$.next(null);
      const demo = await this.demo();
      this.show(demo, JSON.stringify(demo));
      this.keptText = this.shownText;
    }
  }

  private async take(id: string): Promise<void> {
    const kept = await this.database.load(id);
    if (!kept) throw new Error('There is no such muster any more.');
    await this.learn();
    const sound = read(kept.text) === null ? await this.lastSound(kept.states) : null;
    this.watching?.unsubscribe();
    this.trouble.set(
      sound &&
        `The newest state of this muster can’t be read. One before it, “${sound.label}”, is shown; the unreadable one is still kept.`,
    );
    this.open$.next(id);
    this.newest = kept.muster.revision;
    this.put(kept.states, kept.muster.current, kept.muster.revision, sound?.text ?? kept.text);
    this.watching = this.database.watchMuster(id).subscribe({
      next: (row) => {
        this.newest = Math.max(this.newest, row?.revision ?? 0);
        void this.catchUp();
      },
      error: () => undefined,
    });
  }

  /** What an older version or a broken disk has left is read like a file: checked, never trusted. @throws Error when no state is sound */
  private async lastSound(states: readonly KeptState[]): Promise<{ label: string; text: string }> {
    for (const s of [...states].reverse()) {
      const text = await this.database.textOf(s.id).catch(() => '');
      if (read(text)) return { label: s.label, text };
    }
    throw new Error('no state of this muster is sound');
  }

  private put(states: readonly KeptState[], current: number, revision: number, text: string): void {
    this.states.set(states);
    this.current.set(current);
    this.seen = current;
    this.revision = revision;
    this.keptText = text;
    this.showKept();
  }

  /** The kept state with what waits on top of it; the same object as long as nothing differs. */
  private showKept(): void {
    const waits = this.queue().some((deed) => deed.kind === 'change');
    if (this.keptText === this.shownText && !waits) return;
    let muster = read(this.keptText) ?? this.shown();
    for (const deed of this.queue()) {
      if (deed.kind !== 'change' || !muster) continue;
      const admitted = tried(muster, deed.edits);
      if (admitted.ok) muster = admitted.muster;
    }
    const text = JSON.stringify(muster);
    // The same muster as its schema orders it: the next change then need not be checked against what is kept.
    if (!waits) this.keptText = text;
    if (muster && text !== this.shownText) this.show(muster, text);
  }

  private show(muster: Muster, text: string): void {
    this.shownText = text;
    // One that is opened is drawn before it is looked over.
    const isChanged = this.shown() !== null;
    this.shown.set(muster);
    if (this.craft && isChanged) this.lookOver(muster, this.craft);
    else void this.learn().then((craft) => this.lookOverInTurns(muster, craft));
  }

  private async learn(): Promise<Craft> {
    return (this.craft ??= await fetchCraft());
  }

  /** At once, or where that would hold up the page, in turns. */
  private lookOver(muster: Muster, craft: Craft): void {
    const pieces = muster.units.reduce((n, u) => n + u.pieces.length, 0);
    if (pieces > MANY_PIECES) return void this.lookOverInTurns(muster, craft);
    let found: readonly Finding[] | null = null;
    this.tell(muster, { found: () => (found ??= craft.checkMuster(muster)), hasErrors: craft.hasErrors });
  }

  /** Drawn and written first, then looked over check by check: the page never stands still for all of it. */
  private async lookOverInTurns(muster: Muster, { hasErrors, MUSTER_CHECKS }: Craft): Promise<void> {
    const found: Finding[] = [];
    for (const check of MUSTER_CHECKS) {
      await new Promise((resolve) => setTimeout(resolve));
      await this.settled();
      if (this.shown() !== muster) return;
      found.push(...check(muster));
    }
    this.tell(muster, { found: () => found, hasErrors });
  }

  private tell(muster: Muster, checked: Checked): void {
    this.checked.set(checked);
    this.shown$.next(muster);
  }

  /** Another tab has written: its states are read, unless something of ours is on the way; then after it. */
  private async catchUp(): Promise<void> {
    const id = this.openId;
    if (this.isWriting || id === null || this.newest === this.revision) return;
    const seen = new Set(this.states().map((s) => s.id));
    const kept = await this.database.load(id).catch(() => null);
    if (!kept || this.isWriting || this.openId !== id) return;
    this.newest = kept.muster.revision;
    this.put(kept.states, kept.muster.current, kept.muster.revision, kept.text);
    this.tellOverwritten(kept.states.filter((s) => !seen.has(s.id) && s.tab !== this.tab));
  }

  /** Of two edits of one field the later holds; whoever made the earlier is told. */
  private tellOverwritten(foreign: readonly KeptState[]): void {
    for (const theirs of foreign)
      for (const ours of this.states()) {
        if (ours.tab !== this.tab || ours.id <= theirs.base || ours.id >= theirs.id) continue;
        if (theirs.touches.some((t) => ours.touches.some((o) => isWithin(t, o) || isWithin(o, t))))
          this.notices.tell(
            `Another tab has changed the same after you (“${theirs.label}”); its entry holds. Undo brings yours back.`,
          );
      }
  }

  // Writing, one deed after the other.

  private enqueue(deed: Deed): void {
    this.queue.update((q) => [...q, deed]);
    void this.pump();
  }

  /** Nothing is on the way, yet something waits: the last write failed. */
  private isHalted(): boolean {
    return !this.isWriting && this.queue().length > 0;
  }

  private async pump(): Promise<void> {
    if (this.isWriting) return;
    clearTimeout(this.retry);
    this.isWriting = true;
    try {
      for (let deed = this.queue()[0]; deed; deed = this.queue()[0]) {
        this.keeping.waits(this, this.queue().length);
        await this.write(deed);
        this.queue.update((q) => q.slice(1));
        this.keeping.wrote();
      }
    } catch (error) {
      this.keeping.failed('The last change is', error);
      this.retry = setTimeout(() => void this.pump(), RETRY_MS);
    } finally {
      this.isWriting = false;
      this.keeping.waits(this, this.queue().length);
    }
    if (this.queue().length === 0) await this.catchUp();
  }

  private async write(deed: Deed): Promise<void> {
    const id = this.openId;
    if (id === null) throw new Error('what was kept could not be read');
    if (deed.kind === 'go') {
      const gone = await this.database.go(id, deed.steps, this.current());
      if (gone === 'moved') {
        this.revision = BEHIND;
        this.notices.tell(
          `Another tab changed the muster at the same moment, so nothing was ${deed.steps < 0 ? 'undone' : 'redone'}. Look at it, then try again.`,
        );
        return;
      }
      if (!gone) return;
      this.current.set(gone.current);
      this.seen = gone.current;
      this.revision = gone.revision;
      this.newest = Math.max(this.newest, gone.revision);
      this.keptText = gone.text;
      return this.showKept();
    }
    let kept: Kept;
    try {
      kept = await this.database.change(id, {
        label: deed.label,
        touches: deed.edits.flatMap((e) => touches(e) ?? []),
        tab: this.tab,
        base: this.current(),
        seen: this.seen,
        // What went before it in the queue may have come out differently than it was shown.
        text: this.keptText === deed.before ? deed.after : this.again(this.keptText, deed),
        again: (text) => this.again(text, deed),
      });
    } catch (error) {
      if (!(error instanceof NotTaken)) throw error;
      this.notices.tell(`“${deed.label}” was not taken: ${error.message}`);
      this.revision = BEHIND;
      return;
    }
    const { state, revision, text, wasMoved, oldest } = kept;
    if (!wasMoved && this.seen === this.current()) this.seen = state.id;
    // On another tab's state it lacks the states between: they are caught up with when all is written.
    this.revision = wasMoved ? BEHIND : revision;
    this.newest = Math.max(this.newest, revision);
    this.states.update((list) => [...list.filter((s) => s.id <= this.current() && s.id >= oldest), state]);
    this.current.set(state.id);
    this.keptText = text;
  }

  /** The deed on another state than the one on which it was done. @throws NotTaken in words */
  private again(text: string, deed: Deed & { kind: 'change' }): string {
    const base = read(text);
    if (!base) throw new NotTaken('what was kept in another tab can’t be read.');
    const admitted = tried(base, deed.edits);
    if (!admitted.ok) throw new NotTaken(faultWords(admitted.faults));
    return JSON.stringify(admitted.muster);
  }
}

/** A change that can't be made on what another tab has made of the muster: no failure of the disk. */
class NotTaken extends Error {}

function tried(muster: Muster, edits: readonly Edit[]): Admitted {
  try {
    return admit(muster, edits);
  } catch (error) {
    if (!(error instanceof GoneError)) throw error;
    return {
      ok: false,
      faults: [
        { path: error.at.join('.'), text: 'what it was meant for is gone: another tab has deleted it' },
      ],
    };
  }
}

function isWithin(inner: string, outer: string): boolean {
  return inner === outer || inner.startsWith(`${outer}/`);
}

function read(text: string): Muster | null {
  try {
    return parseMuster(JSON.parse(text));
  } catch {
    return null;
  }
}

/** So many are told one by one: a notice that names fifty covers a phone, and what is left open stands among the findings. */
const TOLD = 2;

function inFew(notes: readonly string[]): string {
  const more = notes.length - TOLD;
  return [...notes.slice(0, TOLD), ...(more > 0 ? [`And ${more} more like it.`] : [])].join(' ');
}
