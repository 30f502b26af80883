/** The published form of a muster file: it is the newest, and the demo fits it. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { musterJsonSchema } from './index';

describe('the published JSON Schema', () => {
  it('is that of the Zod source; if not, run `npm run schema`', () => {
    const text = readFileSync(new URL('../../public/muster.schema.json', import.meta.url), 'utf8');
    expect(JSON.parse(text)).toEqual(musterJsonSchema());
  });

  it('names what a muster must have, and its limits', () => {
    const schema = musterJsonSchema() as {
      $schema: string;
      required: string[];
      properties: Record<string, { items?: { properties: Record<string, unknown> } }>;
    };
    expect(schema.$schema).toBe('https://json-schema.org/draft/2020-12/schema');
    expect(schema.required).toEqual(['format', 'name', 'startsOn', 'bench', 'recipes', 'units']);
    expect(schema.properties['units']!.items!.properties['importance']).toMatchObject({
      minimum: 1,
      maximum: 5,
    });
  });
});
