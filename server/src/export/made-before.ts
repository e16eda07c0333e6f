import type { ExportHow } from '@stylet/core/pdf';

/** A longer one is made again. */
const LONGEST = 32 * 1024 * 1024;

interface Made {
  readonly tail: Uint8Array;
}

/**
 * The export that was made last of each state of a document: who asks for it again before anything was done, as one
 * does after looking at what it would leave out, gets the same. It goes when the state itself is let go.
 */
export class MadeBefore<State extends object, M extends Made> {
  private readonly made = new WeakMap<State, { readonly how: string; readonly made: M }>();

  /** What was made of a state, or is made now. Its bytes belong to whoever asked. */
  async of(state: State, how: ExportHow, make: () => Promise<M>): Promise<M> {
    const key = JSON.stringify([how.mode, how.keepsNotes]);
    const known = this.made.get(state);
    if (known?.how === key) return copyOf(known.made);
    const made = await make();
    if (made.tail.length <= LONGEST) this.made.set(state, { how: key, made: copyOf(made) });
    return made;
  }
}

const copyOf = <M extends Made>(made: M): M => ({ ...made, tail: made.tail.slice() });
