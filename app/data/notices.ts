/** Short notices at the foot of the page, each with at most one thing to do about it. */
import { Injectable, signal } from '@angular/core';

export interface Notice {
  readonly text: string;
  readonly action: { readonly word: string; readonly run: () => void } | null;
}

const SHOWN_MS = 12_000;

@Injectable({ providedIn: 'root' })
export class Notices {
  readonly current = signal<Notice | null>(null);
  private timer: ReturnType<typeof setTimeout> | undefined;

  tell(text: string, action: Notice['action'] = null): void {
    clearTimeout(this.timer);
    this.current.set({ text, action });
    this.timer = setTimeout(() => this.current.set(null), SHOWN_MS);
  }

  dismiss(): void {
    clearTimeout(this.timer);
    this.current.set(null);
  }
}
