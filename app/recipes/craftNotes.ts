import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import type { Finding } from '#core/recipe';
import { duration } from '#core/plan';
import { QuickLine } from '../ui/quickLine';
import { Button } from '../ui/button';

/** Findings at their stratum: what is wrong, its cure in one click, or silence with a reason. */
@Component({
  selector: 'pm-craft-notes',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, QuickLine],
  template: `
    @for (f of findings(); track f.rule + f.text) {
      <div
        class="my-1 rounded border-l-4 bg-board px-3 py-1.5 text-[0.92rem]"
        [class]="
          f.severity === 'error' ? 'border-shut' : f.severity === 'warning' ? 'border-lamp' : 'border-mute'
        "
      >
        <strong
          class="mr-1 text-[0.85rem] uppercase"
          [class]="
            f.severity === 'error' ? 'text-shut' : f.severity === 'warning' ? 'text-lamp' : 'text-mute'
          "
          >{{ f.severity === 'error' ? 'Breaks' : f.severity === 'warning' ? 'Watch' : 'Better' }}</strong
        >
        {{ f.text }} <span class="text-mute">{{ f.cure }}</span>
        <div class="mt-1.5 flex flex-wrap items-center gap-2">
          @if (f.fix; as fix) {
            <button pmButton="small lamp" (click)="cured.emit(f)">
              {{ fix.label }}
            </button>
            <span class="text-[0.85rem] text-mute">{{ adds(fix.addsMinutes, fix.addsDryMinutes) }}</span>
          }
          @if (asked() === f.rule) {
            <pm-quick-line
              label="Why this rule is not to be heard here"
              [quiet]="true"
              hint="why not here?"
              word="Silence it"
              [most]="400"
              (sent)="silence(f, $event.text)"
            />
          } @else {
            <button pmButton="small" (click)="asked.set(f.rule)">Silence…</button>
          }
        </div>
      </div>
    }
  `,
})
export class CraftNotes {
  readonly findings = input.required<readonly Finding[]>();
  readonly cured = output<Finding>();
  readonly silenced = output<{ finding: Finding; reason: string }>();
  protected readonly asked = signal<string | null>(null);

  protected silence(finding: Finding, reason: string): void {
    this.silenced.emit({ finding, reason });
    this.asked.set(null);
  }

  protected adds(minutes: number, dry: number): string {
    const part = (n: number, what: string): string =>
      n === 0 ? '' : `${n > 0 ? 'adds' : 'saves'} ${duration(Math.abs(Math.round(n)))} of ${what}`;
    const parts = [part(minutes, 'hands'), part(dry, 'drying')].filter((p) => p !== '');
    return parts.length > 0 ? parts.join(', ') : 'adds nothing';
  }
}
