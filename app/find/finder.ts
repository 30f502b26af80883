/** Opens the finder over whatever is in view; it is fetched when it is first asked for. */
import { inject, Injectable, Injector } from '@angular/core';

@Injectable({ providedIn: 'root' })
export class Finder {
  private readonly injector = inject(Injector);
  private isOpen = false;

  async open(): Promise<void> {
    if (this.isOpen) return;
    this.isOpen = true;
    const [{ Dialog }, { Palette }] = await Promise.all([import('@angular/cdk/dialog'), import('./palette')]);
    this.injector
      .get(Dialog)
      .open(Palette, { ariaLabel: 'Find, or do', autoFocus: 'input', panelClass: 'finder-panel' })
      .closed.subscribe(() => (this.isOpen = false));
  }
}
