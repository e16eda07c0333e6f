import { setTimeout as wait } from 'node:timers/promises';
import { newId } from '@stylet/core/document';
import { addition, insist, type Tally } from './check';
import type { UnderFault } from './under-fault';

/** What passes by itself, as the client has it. */
const PASSING = [429, 502, 503, 504];

/** Somebody who writes on, whatever happens: what was acknowledged is counted, and has to be there. */
export class Writer {
  private readonly acknowledged = new Set<string>();
  private isOver = false;
  private readonly writing: Promise<void>;

  private constructor(
    private readonly server: UnderFault,
    private readonly documentId: string,
    private readonly pageId: string,
  ) {
    this.writing = this.write();
  }

  static async on(server: UnderFault, bytes: Uint8Array): Promise<Writer> {
    const made = (await (await server.upload(bytes)).json()) as { id: string };
    const document = (await (await server.get(`/api/documents/${made.id}`)).json()) as {
      pages: { id: string }[];
    };
    return new Writer(server, made.id, document.pages[0].id);
  }

  get count(): number {
    return this.acknowledged.size;
  }

  /** Waits until so many more are acknowledged. */
  async more(count: number): Promise<void> {
    const wanted = this.count + count;
    for (let i = 0; this.count < wanted; i++) {
      insist(i < 600, 'nothing is acknowledged any more');
      await wait(100);
    }
  }

  /** Stops, and looks whether all that was acknowledged is there. */
  async finish(tally: Tally): Promise<void> {
    this.isOver = true;
    await this.writing;
    const reply = await this.server.get(`/api/documents/${this.documentId}/annotations`);
    const { annotations } = (await reply.json()) as { annotations: { id: string }[] };
    const there = new Set(annotations.map(({ id }) => id));
    const lost = [...this.acknowledged].filter((id) => !there.has(id));
    tally.acknowledged += this.count;
    tally.lost += lost.length;
    insist(lost.length === 0, `${lost.length} of ${this.count} acknowledged operations are lost`);
  }

  private async write(): Promise<void> {
    while (!this.isOver) {
      const id = newId();
      const operation = addition(this.documentId, this.pageId, id, newId());
      while (!(await this.isTaken(operation))) await wait(50);
      this.acknowledged.add(id);
    }
  }

  private async isTaken(operation: object): Promise<boolean> {
    const path = `/api/documents/${this.documentId}/operations`;
    const reply = await this.server
      .post(path, { operations: [operation] }, 20_000)
      .catch(() => undefined);
    if (!reply || PASSING.includes(reply.status)) return this.isOver;
    insist(
      reply.status === 200,
      `an operation was answered ${reply.status}: ${await reply.text()}`,
    );
    return true;
  }
}
