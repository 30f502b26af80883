import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { Router } from '@angular/router';
import { MusterStore } from '../data/musterStore';
import { Button } from '../ui/button';
import { forgetPutBy, isPutBy } from './isPutBy';
import { Questions } from './questions';

/** The first view of a fresh browser: an own muster, or the demo. */
@Component({
  selector: 'pm-begin-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, Questions],
  templateUrl: './begin.view.html',
})
export class BeginView {
  private readonly store = inject(MusterStore);
  private readonly router = inject(Router);
  protected readonly fault = signal<string | null>(null);
  protected readonly isOwn = signal(isPutBy());

  protected async demo(): Promise<void> {
    this.fault.set(null);
    try {
      await this.store.addDemo();
      forgetPutBy();
      await this.router.navigate(['/plan']);
    } catch (error) {
      this.fault.set(error instanceof Error ? error.message : String(error));
    }
  }
}
