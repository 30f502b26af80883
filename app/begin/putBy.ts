/** The answers of a beginning, put by until the muster is made: a reload, or a closed lid, loses nothing. */
import { answersSchema, type Answers } from '#core/entry';
import { PUT_BY } from './isPutBy';

/** Where the browser keeps nothing, only a reload would need it. */
export function keep(answers: Answers): void {
  try {
    sessionStorage.setItem(PUT_BY, JSON.stringify(answers));
  } catch {
    // Full or forbidden: the answers are still on the page.
  }
}

export function putBy(): Answers | null {
  try {
    const read = answersSchema.safeParse(JSON.parse(sessionStorage.getItem(PUT_BY) ?? 'null'));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}
