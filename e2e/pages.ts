import { readFileSync } from 'node:fs';

/** A page of the docs that a test walks: the rows of its tables, by the words their first column is headed with. */
export class WalkedPage {
  readonly #text: string;

  constructor(file: string) {
    this.#text = readFileSync(new URL(`../docs/${file}`, import.meta.url), 'utf8');
  }

  /** The rows of a table, cell by cell. */
  table(firstColumn: string): string[][] {
    const lines = this.#text.split('\n');
    const start = lines.findIndex((line) => line.startsWith(`| ${firstColumn} `));
    if (start < 0) throw new Error(`the page has no table of ${firstColumn}`);
    const rows = lines.slice(start + 2);
    const end = rows.findIndex((line) => !line.startsWith('|'));
    return rows.slice(0, end).map((line) =>
      line
        .slice(1, -1)
        .split('|')
        .map((cell) => cell.trim()),
    );
  }
}
