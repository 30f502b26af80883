/** The answers of a beginning, put by until the muster is made: a reload, or a closed lid, loses nothing. */
import { answersSchema, type Answers } from '#core/entry';
import { recall, remember } from '../data/tabMemory';
import { PUT_BY } from './isPutBy';

export function keep(answers: Answers): void {
  remember(PUT_BY, JSON.stringify(answers));
}

export function putBy(): Answers | null {
  try {
    const read = answersSchema.safeParse(JSON.parse(recall(PUT_BY) ?? 'null'));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}
