import type { Drive } from '../resolve/channels.ts';

/** Numbers for channels at work: equal for those that light alike, whichever function drives them. */
export class DriveNumbers {
  readonly drives: Drive[] = [];
  readonly #known = new WeakMap<Drive, number>();
  readonly #byContents = new Map<string, number>();

  of(drive: Drive): number {
    const known = this.#known.get(drive);
    if (known !== undefined) return known;
    const contents = JSON.stringify({ ...drive, on: null });
    const number = this.#byContents.get(contents) ?? this.drives.push(drive) - 1;
    this.#byContents.set(contents, number);
    this.#known.set(drive, number);
    return number;
  }
}
