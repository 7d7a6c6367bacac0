import type { Registers } from './machine.ts';
import type { Part, Variable } from './parts.ts';

/** A state of a part as one number: mixed radix over its variables. */
export class Numbering {
  readonly #variables: readonly Variable[];
  /** What one step of each variable adds. */
  readonly weights: readonly number[];

  constructor({ variables }: Part) {
    this.#variables = variables;
    let weight = 1;
    this.weights = variables.map(({ size }) => {
      const mine = weight;
      weight *= size;
      return mine;
    });
  }

  of({ values, memory, phases }: Registers): number {
    let number = 0;
    for (let i = 0; i < this.#variables.length; i++) {
      const variable = this.#variables[i];
      const weight = this.weights[i] ?? 0;
      if (variable === undefined) continue;
      switch (variable.kind) {
        case 'input':
          number += weight * (values[variable.at] ?? 0);
          break;
        case 'memory':
          number += weight * (memory[variable.at] ?? 0);
          break;
        case 'phase':
          number += weight * variable.phases.indexOf(phases[variable.at] ?? 0);
      }
    }
    return number;
  }

  /** Writes a state into the registers of its part; what is on is not judged. */
  into(number: number, { values, memory, phases }: Registers): void {
    let rest = number;
    for (const variable of this.#variables) {
      const value = rest % variable.size;
      rest = Math.floor(rest / variable.size);
      switch (variable.kind) {
        case 'input':
          values[variable.at] = value;
          break;
        case 'memory':
          memory[variable.at] = value;
          break;
        case 'phase':
          phases[variable.at] = variable.phases[value] ?? 0;
      }
    }
  }
}
