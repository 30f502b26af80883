/** The schools as the composer asks for them: what was chosen, or each question's default. */
import type { Recipe } from '#core/muster';
import { QUESTIONS } from '../schools';

/** Question to school. */
export type Schooled = Readonly<Record<string, string>>;

export function schooled(chosen: Recipe['schools']): Schooled {
  return Object.fromEntries(
    QUESTIONS.map((q) => {
      const asked = chosen?.[q.id];
      return [q.id, q.schools.some((s) => s.id === asked) ? asked! : q.schools[0].id];
    }),
  );
}
