import {
  annotationListSchema,
  documentSchema,
  operationLogSchema,
  type AnnotationList,
  type StyletDocument,
} from '@stylet/core/api';
import type { ConfirmedOperation } from '@stylet/core/document';
import type { z } from 'zod';

/** The server says that there is no such document, or not for whoever asks. */
export class Gone extends Error {}

/** What keeping documents asks of the server. All throw what `fetch` throws, and where it answers with a problem. */
export class KeptServer {
  constructor(private readonly get: typeof fetch) {}

  document(id: string): Promise<StyletDocument> {
    return this.json(`/api/documents/${id}`, documentSchema);
  }

  /** Some annotations, and which pages have more. */
  first(id: string, most: number): Promise<AnnotationList> {
    return this.json(`/api/documents/${id}/annotations?most=${most}`, annotationListSchema);
  }

  onPages(id: string, pageIds: readonly string[]): Promise<AnnotationList> {
    return this.json(
      `/api/documents/${id}/annotations?pages=${pageIds.join()}`,
      annotationListSchema,
    );
  }

  /** All that was done after a revision. */
  async since(id: string, revision: number): Promise<ConfirmedOperation[]> {
    const all: ConfirmedOperation[] = [];
    for (let at = revision; ;) {
      const url = `/api/documents/${id}/operations?since=${at}`;
      const { operations, revision: now } = await this.json(url, operationLogSchema);
      all.push(...operations);
      if (operations.length === 0) return all;
      at = operations[operations.length - 1].revision;
      if (at >= now) return all;
    }
  }

  async file(path: string): Promise<Blob> {
    const reply = await this.asked(path);
    return reply.blob();
  }

  private async json<T>(url: string, schema: z.ZodType<T>): Promise<T> {
    return schema.parse(await (await this.asked(url)).json());
  }

  private async asked(url: string): Promise<Response> {
    const reply = await this.get(new URL(url, self.location.origin), { priority: 'low' });
    if (reply.status === 404) throw new Gone(`the server has nothing at ${url}`);
    if (!reply.ok) throw new Error(`the server answers ${reply.status} when asked for ${url}`);
    return reply;
  }
}
