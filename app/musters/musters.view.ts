import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router } from '@angular/router';
import { from } from 'rxjs';

import { type Instant, instantOf, parseMuster, withSuffix } from '#core/muster';
import { Database, MOST_LETTERS, MOST_STATES, type KeptMuster } from '../data/database';
import { NOW } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { Notices } from '../data/notices';
import { Button } from '../ui/button';
import { Confirm } from '../ui/confirm';

const WHEN = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });

/** All musters of this browser, side by side: each with its own log, plan, undo and name. */
@Component({
  selector: 'pm-musters-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Confirm, Button],
  template: `
    <div class="mx-auto max-w-[64rem] p-5">
      <div class="mb-4 flex flex-wrap items-center gap-3">
        <h1 class="grow text-[1.7rem]">All musters</h1>
        <button pmButton="lamp" (click)="run(store.addEmpty())">New, empty</button>
        <button pmButton (click)="run(store.addDemo())">The demo as one more</button>
      </div>
      @if (fault(); as text) {
        <p class="mb-3 text-shut" role="alert">{{ text }}</p>
      }
      @for (group of groups(); track group.title) {
        @if (group.musters.length > 0 || group.place === 'kept') {
          <section class="mb-6" [attr.aria-labelledby]="'group-' + group.place">
            <h2 [id]="'group-' + group.place" class="mb-2 text-[1.2rem] text-mute">{{ group.title }}</h2>
            <ul class="flex flex-col gap-2">
              @for (m of group.musters; track m.id) {
                <li
                  class="flex flex-wrap items-center gap-x-3 gap-y-2 rounded-lg border bg-board p-4"
                  [class]="m.id === openId() ? 'border-lamp' : 'border-line'"
                >
                  <span class="min-w-0 grow basis-60">
                    <strong class="block font-title text-[1.2rem] break-words">{{ m.name }}</strong>
                    <span class="text-[0.9rem] text-mute"
                      >{{ m.id === openId() ? 'in hand · ' : '' }}changed {{ when(m.changedAt) }}</span
                    >
                  </span>
                  @switch (group.place) {
                    @case ('kept') {
                      <button pmButton [disabled]="m.id === openId()" (click)="open(m)">Open</button>
                      <button pmButton="small" (click)="run(duplicate(m))">Duplicate</button>
                      <button pmButton="small" (click)="run(archive(m, true))">Archive</button>
                      <button pmButton="small" (click)="run(bin(m))">To the bin</button>
                    }
                    @case ('archived') {
                      <button pmButton (click)="run(archive(m, false))">Out of the archive</button>
                      <button pmButton="small" (click)="run(bin(m))">To the bin</button>
                    }
                    @case ('binned') {
                      <button pmButton (click)="run(restore(m))">Back from the bin</button>
                      <pm-confirm
                        word="Delete for good"
                        warning="Muster, log and history are gone then."
                        yes="Yes, delete for good"
                        (confirmed)="run(destroy(m))"
                      />
                    }
                  }
                </li>
              } @empty {
                <li class="text-mute">None. Make a new one, or take the demo.</li>
              }
            </ul>
          </section>
        }
      }
      <p class="text-[0.9rem] text-mute">
        Each muster has a log, a plan and an undo of its own. Undo of the one in hand reaches back
        {{ store.depth() }} {{ store.depth() === 1 ? 'change' : 'changes' }}; the newest {{ most }} are kept,
        or fewer where together they are longer than {{ mostMegabytes }} MB. A duplicate takes the muster
        along, not its log.
      </p>
    </div>
  `,
})
export class MustersView {
  protected readonly store = inject(MusterStore);
  private readonly database = inject(Database);
  private readonly notices = inject(Notices);
  private readonly now = inject(NOW);
  private readonly router = inject(Router);

  private readonly musters = toSignal(from(this.database.watchMusters()), { initialValue: [] });
  protected readonly openId = toSignal(this.store.opened, { initialValue: null });
  protected readonly fault = signal<string | null>(null);
  protected readonly most = MOST_STATES;
  protected readonly mostMegabytes = Math.round(MOST_LETTERS / 1_000_000);

  protected readonly groups = computed(() => {
    const all = this.musters();
    const kept = all.filter((m) => m.binnedAt === null);
    return [
      { place: 'kept' as const, title: 'At hand', musters: kept.filter((m) => !m.isArchived) },
      { place: 'archived' as const, title: 'Archived', musters: kept.filter((m) => m.isArchived) },
      { place: 'binned' as const, title: 'In the bin', musters: all.filter((m) => m.binnedAt !== null) },
    ];
  });

  protected when(at: Instant): string {
    return WHEN.format(Date.parse(at));
  }

  /** What goes wrong is said here, in words. */
  protected run(work: Promise<unknown>): void {
    this.fault.set(null);
    work.catch((error: unknown) => this.fault.set(error instanceof Error ? error.message : String(error)));
  }

  protected open(muster: KeptMuster): void {
    this.run(this.store.open(muster.id).then(() => this.router.navigate(['/muster'])));
  }

  /** A template: the muster as it is, under a new name, with an empty log. */
  protected async duplicate(row: KeptMuster): Promise<void> {
    const kept = await this.database.load(row.id);
    if (!kept) throw new Error('It is not there any more.');
    const muster = parseMuster(JSON.parse(kept.text));
    await this.store.add({ ...muster, name: withSuffix(muster.name, ', copy') }, `${muster.name} duplicated`);
  }

  protected async archive(row: KeptMuster, isArchived: boolean): Promise<void> {
    if (isArchived) await this.leave(row);
    await this.database.setPlace(row.id, { isArchived });
  }

  protected async bin(row: KeptMuster): Promise<void> {
    await this.leave(row);
    await this.database.setPlace(row.id, { binnedAt: instantOf(this.now()) });
    this.notices.tell(`${row.name} lies in the bin`, {
      word: 'Back',
      run: () => this.run(this.restore(row)),
    });
  }

  protected async restore(row: KeptMuster): Promise<void> {
    await this.database.setPlace(row.id, { binnedAt: null });
  }

  protected async destroy(row: KeptMuster): Promise<void> {
    await this.database.destroy(row.id);
    this.notices.tell(`${row.name} is deleted for good`);
  }

  /** The one in hand is put down before it goes: another is taken up, a new one where there is no other. */
  private async leave(row: KeptMuster): Promise<void> {
    if (row.id !== this.openId()) return;
    const other = this.musters().find((m) => m.id !== row.id && m.binnedAt === null && !m.isArchived);
    if (other) await this.store.open(other.id);
    else await this.store.addEmpty();
  }
}
