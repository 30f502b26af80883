/** `npm run schema`: the muster's JSON Schema from its Zod source into public/, where the app serves it. */
import { writeFileSync } from 'node:fs';
import { musterJsonSchema } from '#core/muster';

writeFileSync(
  new URL('../public/muster.schema.json', import.meta.url),
  `${JSON.stringify(musterJsonSchema(), null, 2)}\n`,
);
