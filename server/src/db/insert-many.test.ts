import { isStorable } from '@stylet/core/bounds';
import { asc, sql } from 'drizzle-orm';
import { boolean, doublePrecision, integer, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import fc from 'fast-check';
import { connect } from './database';
import { insertMany } from './insert-many';
import { bytea, instant } from './tables/columns';

const columns = {
  order: integer('order').primaryKey(),
  id: uuid('some_id').notNull(),
  words: text('words'),
  fields: jsonb('fields'),
  bytes: bytea('bytes'),
  size: doublePrecision('size').notNull(),
  isIt: boolean('is_it').notNull().default(true),
  at: instant('at'),
};
const ours = pgTable('rows_ours', columns);
const theirs = pgTable('rows_theirs', columns);

const words = fc.string({ unit: 'binary' }).filter(isStorable);
const row = fc.record(
  {
    id: fc.uuid(),
    words: fc.option(words),
    fields: fc.option(
      fc
        .record({ words, numbers: fc.array(fc.integer()), none: fc.constant(null) })
        .map((one) => ({ ...one })),
    ),
    bytes: fc.option(fc.uint8Array().map((bytes) => Buffer.from(bytes))),
    size: fc.double({ noNaN: true, noDefaultInfinity: true }),
    isIt: fc.boolean(),
    at: fc.option(
      fc.date({ min: new Date('1970-01-01'), max: new Date('2100-01-01'), noInvalidDate: true }),
    ),
  },
  { requiredKeys: ['id', 'size', 'isIt'] },
);

// Drizzle's own INSERT, with a parameter for each value, is what is checked against.
test('rows that go as one come to what each of their values comes to alone', async () => {
  const url = `${process.env['STYLET_DATABASE_SERVER']}/postgres`;
  const { database, close } = connect(url, () => undefined, 1);
  try {
    for (const name of ['rows_ours', 'rows_theirs'])
      await database.execute(
        sql.raw(`create temporary table ${name} ("order" int primary key, some_id uuid not null, words text,
          fields jsonb, bytes bytea, size float8 not null, is_it boolean not null default true, at timestamptz)`),
      );
    await fc.assert(
      fc.asyncProperty(fc.array(row, { maxLength: 20 }), async (list) => {
        const rows = list.map((one, order) => ({ ...one, order }));
        await database.delete(ours);
        await database.delete(theirs);
        await insertMany(database, ours, rows);
        if (rows.length > 0) await database.insert(theirs).values(rows);
        const [here, there] = [
          await database.select().from(ours).orderBy(asc(ours.order)),
          await database.select().from(theirs).orderBy(asc(theirs.order)),
        ];
        expect(here).toEqual(there);
        expect(here).toHaveLength(rows.length);
      }),
      { numRuns: 60 },
    );
    // More than one statement takes; what is there already stays when that is asked for.
    const many = Array.from({ length: 4500 }, (_, order) => ({
      order,
      id: '01a22d38-38cf-724b-a38e-fea396157760',
      size: order / 3,
    }));
    await database.delete(ours);
    await insertMany(database, ours, many);
    await insertMany(database, ours, many, sql`on conflict do nothing`);
    const [{ count, sum }] = await database
      .select({ count: sql<number>`count(*)::int`, sum: sql<number>`sum(size)` })
      .from(ours);
    expect([count, sum]).toEqual([4500, many.reduce((all, { size }) => all + size, 0)]);
    await expect(insertMany(database, ours, many)).rejects.toThrow();
  } finally {
    await close();
  }
});
