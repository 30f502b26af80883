/**
 * Cells that a spreadsheet would run as a formula, whatever white space stands before it and however wide its sign: they are written with an
 * apostrophe before them.
 */
export const FORMULA = /^(\s*[=+\-@\uFF1D\uFF0B\uFF0D\uFF20]|[\t\r\n])/;
