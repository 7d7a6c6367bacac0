/** A cell that a spreadsheet would take for a formula: it is kept apart by an apostrophe before it. */
const FORMULA = /^'*[=+\-@\t\r]/;

export const escaped = (cell: string): string => (FORMULA.test(cell) ? `'${cell}` : cell);
export const unescaped = (cell: string): string => (/^'+[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell);
