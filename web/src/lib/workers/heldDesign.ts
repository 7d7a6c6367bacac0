import { applyDelta, deltaOf, type Delta } from '@flarik/core/design/delta';
import type { Build } from '@flarik/core/design/schema';

/** The design in a worker: it came whole once, and is edited there as it is edited here. */
export class HeldDesign {
  #design: Build | null = null;

  get present(): Build {
    if (this.#design === null) throw new Error('the worker has no design yet');
    return this.#design;
  }

  /** Forgets the design. */
  drop(): void {
    this.#design = null;
  }

  /** Takes a design whole. */
  take = (build: Build): void => {
    this.#design = build;
  };

  /** Edits the design; what the edit leaves alone stays the same object, and all that was worked out from it stays known. */
  edit = (delta: Delta): void => {
    this.#design = applyDelta(this.present, delta);
  };
}

/** What a worker that holds a design is told. */
export interface Holder {
  take: (build: Build) => void;
  edit: (delta: Delta) => void;
}

/** The same from the other side. */
interface Told {
  take: (build: Build) => Promise<void>;
  edit: (delta: Delta) => Promise<void>;
}

/** Keeps the design of a worker the same as one's own. */
export class DesignKeeper {
  /** The design as the worker has it. */
  #sent: Build | null = null;

  /** Gives the worker this design: the whole once, and then what changed. */
  bring(api: Told, build: Build): void {
    // That the worker is lost is heard by whoever asks it something.
    if (this.#sent === null) void api.take(build).catch(() => undefined);
    else if (this.#sent !== build) void api.edit(deltaOf(this.#sent, build)).catch(() => undefined);
    this.#sent = build;
  }
}
