/** What a command prints, and how it ends. */
export interface Output {
  readonly exitCode: 0 | 1;
  readonly text: string;
}
