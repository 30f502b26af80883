export { answersSchema, begun, type Answers, type Beginning } from './beginning';
export { readDate, TABLE_TIME } from './dates';
export { GLUE, withDrafts, type Named, type PieceDraft, type UnitDraft } from './draft';
export { MOST_PIECES, readLine, readLines, type Known, type Understood } from './line';
export { matchRecipe } from './match';
export { withMore, type More } from './more';
export {
  cellsOf,
  COLUMN_NAMES,
  COLUMNS,
  columnsOf,
  isTable,
  readTable,
  type Column,
  type ReadTable,
  type RowFault,
  type Table,
} from './table';
