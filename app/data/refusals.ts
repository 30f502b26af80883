/** Why the door refused the last change: the field at which it was typed takes it up, else it is told as a notice. */
import { inject, Injectable } from '@angular/core';
import { Notices } from './notices';

@Injectable({ providedIn: 'root' })
export class Refusals {
  private readonly notices = inject(Notices);
  /** the field that is handing on an entry; refusals meanwhile are its own */
  private heard: string[] | null = null;

  /** Runs what a field hands on. @returns why it was refused, or null */
  during(hand: () => void): string | null {
    this.heard = [];
    try {
      hand();
      return this.heard[0] ?? null;
    } finally {
      this.heard = null;
    }
  }

  say(reason: string): void {
    if (this.heard) this.heard.push(reason);
    else this.notices.tell(`Not taken: ${reason}`);
  }
}
