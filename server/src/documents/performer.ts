import type { OperationResult } from '@stylet/core/api';
import { whereOf, type Operation } from '@stylet/core/document';
import { Problem } from '@stylet/core/problems';
import type { Identity } from '../access/identity';
import type { Database } from '../db/database';
import { perform, type Performed } from './operations';

/** Operations in one transaction, at the most, where there are several batches. */
const MOST_TOGETHER = 500;

/**
 * Between two transactions on a document while more waits, in ms, at the most: as long as the one before took. The more there
 * are who write at once, the more comes together, is committed at one go and told in one message.
 */
const LONGEST_PAUSE = 50;

/** Operations that somebody wants carried out together, or not at all. */
interface Batch {
  readonly identity: Identity;
  readonly operations: readonly Operation[];
  readonly resolve: (result: OperationResult) => void;
  readonly reject: (error: unknown) => void;
}

/**
 * Carries out operations, each document's in the order in which they come. What comes while a transaction runs goes into
 * the next one together, so that many who write at once wait for few commits.
 */
export class Performer {
  private readonly waiting = new Map<string, Batch[]>();

  /** `done` is told what was carried out, once it is committed. */
  constructor(
    private readonly database: Database,
    private readonly done: (documentId: string, fresh: Performed['fresh']) => void,
  ) {}

  /** As `perform`: a batch that cannot be carried out holds up no other. */
  perform(
    identity: Identity,
    documentId: string,
    operations: readonly Operation[],
  ): Promise<OperationResult> {
    return new Promise((resolve, reject) => {
      const batch = { identity, operations, resolve, reject };
      const line = this.waiting.get(documentId);
      if (line) line.push(batch);
      else {
        this.waiting.set(documentId, [batch]);
        void this.performAll(documentId);
      }
    });
  }

  /** Operations were carried out elsewhere, with something that goes with them, and are committed. */
  told(documentId: string, fresh: Performed['fresh']): void {
    this.done(documentId, fresh);
  }

  private async performAll(documentId: string): Promise<void> {
    const line = this.waiting.get(documentId)!;
    while (line.length > 0) {
      const begun = performance.now();
      await this.performTogether(documentId, nextOf(line));
      const pause = Math.min(LONGEST_PAUSE, performance.now() - begun);
      if (line.length > 0) await new Promise((done) => setTimeout(done, pause));
    }
    this.waiting.delete(documentId);
  }

  private async performTogether(documentId: string, batches: readonly Batch[]): Promise<void> {
    const [{ identity }] = batches;
    const all = batches.flatMap(({ operations }) => operations);
    try {
      const { result, fresh } = await perform(this.database, identity, documentId, all);
      this.done(documentId, fresh);
      const partOf = partsOf(result);
      for (const { operations, resolve } of batches) resolve(partOf(operations));
    } catch (error) {
      // One of them is at fault, and only that one is to be told so.
      if (batches.length > 1 && error instanceof Problem)
        for (const batch of batches) await this.performTogether(documentId, [batch]);
      else for (const { reject } of batches) reject(error);
    }
  }
}

/** Takes the next batches from a line that can go into one transaction: of one identity, and not too many. */
function nextOf(line: Batch[]): Batch[] {
  const { account } = line[0].identity;
  let count = line[0].operations.length;
  const end = line.findIndex(
    ({ identity, operations }, i) =>
      i > 0 && (identity.account !== account || (count += operations.length) > MOST_TOGETHER),
  );
  return line.splice(0, end < 0 ? line.length : end);
}

/** What a result says of some of its operations. */
function partsOf({ revision, operations, removedPages }: OperationResult) {
  const revisions = new Map(operations.map((one) => [one.id, one.revision]));
  return (some: readonly Operation[]): OperationResult => ({
    revision,
    operations: some.map(({ id }) => ({ id, revision: revisions.get(id)! })),
    removedPages: removedPages.filter(({ page }) =>
      some.some(({ effect }) => whereOf(effect, 'annotation')?.pageId === page.id),
    ),
  });
}
