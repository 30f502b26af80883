/** The moves of the search, each in a file of its own. Named, so that a measurement can leave one out. */
import { ahead } from './ahead';
import { gather } from './gather';
import { late } from './late';
import type { Move } from './move';
import { piece } from './piece';
import { promote } from './promote';
import { goBack } from './return';
import { row } from './row';
import { run } from './run';
import { session } from './session';
import { shift } from './shift';
import { strands } from './strands';
import { tail } from './tail';
import { together } from './together';
import { unit } from './unit';

export { MOST_OUT, spanOf, type Choice, type Ground, type Move, type Span, type TakenOut } from './move';
export { late };

export const MOVES: readonly Move[] = [
  strands,
  together,
  run,
  unit,
  session,
  tail,
  late,
  promote,
  ahead,
  gather,
  goBack,
  piece,
  row,
  shift,
];
