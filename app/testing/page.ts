/** A component on a page of its own: find by label or by what a button says, type, press, and let it settle. */
import type { ComponentFixture } from '@angular/core/testing';

export class Page {
  constructor(private readonly fixture: ComponentFixture<unknown>) {}

  private get root(): HTMLElement {
    return this.fixture.nativeElement as HTMLElement;
  }

  get text(): string {
    return (this.root.textContent ?? '').replace(/\s+/g, ' ').trim();
  }

  /** The field that a label names. @throws Error when there is none */
  field(label: string, nth = 0): HTMLInputElement {
    const labels = [...this.root.querySelectorAll('label')].filter((l) => l.textContent?.trim() === label);
    const found = labels[nth];
    const field =
      found && (found.querySelector('input, select, textarea') ?? document.getElementById(found.htmlFor));
    if (!field) throw new Error(`There is no field “${label}” (${nth + 1}).`);
    return field as HTMLInputElement;
  }

  async type(label: string, value: string, nth = 0): Promise<void> {
    const field = this.field(label, nth);
    field.value = value;
    field.dispatchEvent(new Event('input', { bubbles: true }));
    field.dispatchEvent(new Event('change', { bubbles: true }));
    field.dispatchEvent(new Event('blur'));
    await this.fixture.whenStable();
  }

  async settle(): Promise<void> {
    await this.fixture.whenStable();
  }

  async check(label: string): Promise<void> {
    const field = this.field(label);
    field.click();
    await this.fixture.whenStable();
  }

  /** @throws Error when there is no such button */
  async press(name: string, nth = 0): Promise<void> {
    const button = [...this.root.querySelectorAll('button')].filter((b) => b.textContent?.trim() === name)[
      nth
    ];
    if (!button) throw new Error(`There is no button “${name}”.`);
    button.click();
    await this.fixture.whenStable();
  }
}
