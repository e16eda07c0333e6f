import type { PictureType } from '@stylet/core/api';
import type { TextPicture } from '@stylet/core/typed-pages';
import { inArray, eq } from 'drizzle-orm';
import type { Queries } from '../db/database';
import { pictures, sources } from '../db/schema';
import { mediaTypes } from '../pictures/media-types';
import { readSource } from '../sources/chunks';

interface PictureRow {
  readonly type: PictureType;
  readonly size: number;
}

/** A text that is handed over with its pictures written out in it (RFC 2397), piece by piece: they may be long. */
export class WithPictures {
  private constructor(
    private readonly queries: Queries,
    private readonly rows: ReadonlyMap<string, PictureRow>,
  ) {}

  static async of(queries: Queries, wanted: readonly TextPicture[]): Promise<WithPictures> {
    const digests = [...new Set(wanted.map(({ digest }) => digest))];
    const rows = await queries
      .select({ digest: pictures.digest, type: pictures.type, size: sources.size })
      .from(pictures)
      .innerJoin(sources, eq(sources.digest, pictures.digest))
      .where(inArray(pictures.digest, digests));
    return new WithPictures(queries, new Map(rows.map((row) => [row.digest, row])));
  }

  /** What stands for a picture in a text until that is written; undefined for one that has to be told by its words. */
  readonly source = ({ digest }: TextPicture): string | undefined => {
    const type = this.rows.get(digest)?.type;
    // No program shows a page as a picture.
    return type && type !== 'page' ? `${OPENING}${digest}${CLOSING}` : undefined;
  };

  /** The bytes of a text in UTF-8, with the files of its pictures. */
  async *bytes(text: string): AsyncGenerator<Buffer | string> {
    const parts = text.split(PLACE);
    for (let i = 0; i < parts.length; i += 2) {
      yield parts[i];
      const digest = parts.at(i + 1);
      const row = digest && this.rows.get(digest);
      if (row) yield* this.written(digest, row);
    }
  }

  private async *written(digest: string, { type, size }: PictureRow): AsyncGenerator<string> {
    yield `data:${mediaTypes[type]};base64,`;
    let rest = Buffer.alloc(0);
    for await (const part of readSource(this.queries, digest, 0, size)) {
      const all = Buffer.concat([rest, part]);
      // Three bytes are four letters (RFC 4648, 4): what is left over waits for more.
      const whole = all.length - (all.length % 3);
      yield all.toString('base64', 0, whole);
      rest = all.subarray(whole);
    }
    yield rest.toString('base64');
  }
}

/** Of letters that no text has (Unicode 16, 23.7): none is mistaken for it. */
const OPENING = '\ufdd0';
const CLOSING = '\ufdd1';
const PLACE = new RegExp(`${OPENING}([0-9a-f]{64})${CLOSING}`);
