/** Fields: what is typed is a draft until it is whole; a refusal stands at the field; nothing unsound is handed on. */
import { ChangeDetectionStrategy, Component, inject, signal, type WritableSignal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { beforeEach, describe, expect, it } from 'vitest';
import { amount, whole } from '#core/muster';
import { Refusals } from '../data/refusals';
import { Page } from '../testing/page';
import { ChoiceField } from './choiceField';
import { NumberField } from './numberField';
import { TextField } from './textField';

@Component({
  selector: 'pm-host',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChoiceField, NumberField, TextField],
  template: `
    <pm-text label="Name" [value]="name()" (valueChange)="take('name', name, $event)" />
    <pm-text
      label="Table"
      type="datetime-local"
      [value]="table()"
      (valueChange)="take('table', table, $event)"
    />
    <pm-number
      label="Places"
      unit="places"
      [of]="places9"
      [value]="places()"
      (valueChange)="take('places', places, $event)"
    />
    <pm-number
      label="Litres"
      [of]="litresField"
      [value]="litres()"
      (valueChange)="take('litres', litres, $event)"
    />
    <pm-number
      label="Dry"
      unit="min"
      [of]="dryField"
      [value]="dry()"
      (valueChange)="take('dry', dry, $event)"
    />
    <pm-choice label="Use" [choices]="choices" [value]="use()" (valueChange)="take('use', use, $event)" />
  `,
})
class Host {
  protected readonly places9 = whole(1, 9);
  protected readonly litresField = amount(0, 100).optional();
  private readonly refusals = inject(Refusals);
  readonly name = signal('Herons');
  readonly table = signal('2027-03-05T12:00');
  readonly places = signal<number | null>(2);
  readonly litres = signal<number | null>(3);
  protected readonly dryField = whole(0, 10_000);
  readonly dry = signal<number | null>(0);
  readonly use = signal('a');
  readonly choices = [
    { value: 'a', text: 'a' },
    { value: 'b', text: 'b' },
  ];
  readonly taken: [string, unknown][] = [];
  refuse: string | null = null;

  take<T>(name: string, into: WritableSignal<T>, value: T): void {
    if (this.refuse !== null) return this.refusals.say(this.refuse);
    this.taken.push([name, value]);
    into.set(value);
  }
}

let host: Host;
let page: Page;
beforeEach(async () => {
  const fixture = TestBed.createComponent(Host);
  await fixture.whenStable();
  host = fixture.componentInstance;
  page = new Page(fixture);
});

describe('a field', () => {
  it('hands on what is new, trimmed, once; what is as it was changes nothing', async () => {
    await page.type('Name', '  Grey herons ');
    await page.type('Name', 'Grey herons');
    await page.type('Table', '2027-03-05T12:00');
    expect(host.taken).toEqual([['name', 'Grey herons']]);
  });

  it('keeps a draft to itself while it is typed, and gives it up on Escape', async () => {
    const field = page.field('Name');
    field.value = 'Half a na';
    field.dispatchEvent(new Event('input'));
    field.dispatchEvent(new Event('change'));
    expect(host.taken).toEqual([]);
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
    field.dispatchEvent(new Event('blur'));
    expect([field.value, host.taken]).toEqual(['Herons', []]);
  });

  it('hands on at Enter', () => {
    const field = page.field('Name');
    field.value = 'Entered';
    field.dispatchEvent(new Event('input'));
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    expect(host.taken).toEqual([['name', 'Entered']]);
  });

  it('that must not be empty says so', async () => {
    await page.type('Name', '   ');
    await page.type('Table', '');
    expect(page.text).toContain('Needs a name.');
    expect(page.text).toContain('Needs a complete date or time; what stood before still holds.');
    expect(host.taken).toEqual([]);
  });

  it('shows why it was refused, keeps the draft, and forgets the reason once all is well', async () => {
    host.refuse = 'The table date lies 50 years after the beginning.';
    await page.type('Table', '2077-03-05T12:00');
    expect(page.text).toContain('lies 50 years after');
    expect(page.field('Table').getAttribute('aria-invalid')).toBe('true');
    expect(page.field('Table').value).toBe('2077-03-05T12:00');
    host.refuse = null;
    await page.type('Table', '2027-04-05T12:00');
    expect(page.text).not.toContain('lies 50 years after');
    expect(host.taken).toEqual([['table', '2027-04-05T12:00']]);
  });

  it.each([
    ['0', 'Between 1 and 9 places.'],
    ['10', 'Between 1 and 9 places.'],
    ['2.5', 'Needs a whole number.'],
    ['many', 'That is no number.'],
    ['', 'Needs a number.'],
    ['Infinity', 'That is no number.'],
  ])('for a number refuses %j: %s', async (text, fault) => {
    await page.type('Places', text);
    expect(page.text).toContain(fault);
    expect(host.taken).toEqual([]);
  });

  it('for a number takes commas for points, and nothing where it may be empty', async () => {
    await page.type('Litres', '2,5');
    await page.type('Litres', '');
    expect(host.taken).toEqual([
      ['litres', 2.5],
      ['litres', null],
    ]);
  });

  it('of minutes takes hours too, and says long times in hours', async () => {
    for (const [text, minutes] of [
      ['1 h 20', 80],
      ['2:30', 150],
      ['1,5 h', 90],
      ['2 days', 2880],
      ['45 min', 45],
    ] as const) {
      await page.type('Dry', text);
      expect(host.dry()).toBe(minutes);
    }
    await page.type('Dry', '12 h');
    expect(page.text).toContain('min (12 h)');
    await page.type('Dry', 'a while');
    expect(page.text).toContain('That is no number.');
  });

  it('tells what is wrong while it is typed, and takes nothing yet', async () => {
    const field = page.field('Places');
    field.value = '12';
    field.dispatchEvent(new Event('input'));
    await page.settle();
    expect(page.text).toContain('Between 1 and 9 places.');
    field.value = '3';
    field.dispatchEvent(new Event('input'));
    await page.settle();
    expect(page.text).not.toContain('Between 1 and 9');
    expect(host.taken).toEqual([]);
  });

  it('of choices shows what holds, not what was refused', async () => {
    host.refuse = 'Not this one.';
    await page.type('Use', 'b');
    expect([page.field('Use').value, host.use()]).toEqual(['a', 'a']);
    expect(page.text).toContain('Not this one.');
    host.refuse = null;
    await page.type('Use', 'b');
    expect(host.taken).toEqual([['use', 'b']]);
  });
});
