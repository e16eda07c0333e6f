import { readFileSync } from 'node:fs';
import { Problem, type ProblemCode } from '@stylet/core/problems';
import sharp from 'sharp';
import { TestServer, realPdf } from '../testing/server';
import { Covers } from './cover';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()));
afterAll(() => server.stop());

const bytes = readFileSync(realPdf('asymptote-doc/asyRefCard.pdf'));

test('covers that are asked for together all come, as PNG', async () => {
  const cards = await Promise.all([1, 2, 3, 4, 5].map((n) => server.bringIn(bytes, `${n}.pdf`)));
  const replies = await Promise.all(
    cards.map(({ id }) => server.app.inject(`/api/documents/${id}/cover`)),
  );
  for (const { statusCode, headers, rawPayload } of replies) {
    expect([statusCode, headers['content-type']]).toEqual([200, 'image/png']);
    expect(await sharp(rawPayload).metadata()).toMatchObject({ format: 'png', width: 480 });
  }
});

test('a cover that nobody waits for any more is not drawn, and is when it is asked for again', async () => {
  const { id, revision } = await server.bringIn(bytes, 'Card.pdf');
  const { covers } = server.services;
  const leaving = new AbortController();
  const left = covers.picture(id, revision, leaving.signal);
  leaving.abort();
  await expect(left).rejects.toMatchObject({ code: 'nobody-waits' });
  // Of two who wait, one may go.
  const [one, other] = [new AbortController(), new AbortController()];
  const both = [one, other].map(({ signal }) => covers.picture(id, revision, signal));
  one.abort();
  const [drawn] = await Promise.all(both);
  expect(drawn.subarray(1, 4).toString()).toBe('PNG');
  // It is kept: whoever asks now waits for nothing.
  expect(await covers.picture(id, revision, new AbortController().signal)).toBe(drawn);
});

test.each<[ProblemCode, number]>([
  // What the file is to blame for stays so until it is another revision.
  ['work-too-large', 1],
  ['work-too-long', 1],
  // What may pass is tried again.
  ['internal', 2],
  ['database-unavailable', 2],
  ['nobody-waits', 2],
])('a cover that ended with %s, asked for twice, is begun %i times', async (code, times) => {
  const firstPageFile = jest.fn().mockRejectedValue(new Problem(code, 'made up'));
  const { exporter, spool } = server.services;
  const covers = new Covers(Object.assign(Object.create(exporter), { firstPageFile }), spool);
  for (let i = 0; i < 2; i++)
    await expect(covers.picture('one', 1, new AbortController().signal)).rejects.toMatchObject({
      code,
    });
  expect(firstPageFile).toHaveBeenCalledTimes(times);
  // Another revision may be well.
  await expect(covers.picture('one', 2, new AbortController().signal)).rejects.toBeDefined();
  expect(firstPageFile).toHaveBeenCalledTimes(times + 1);
});

test('whoever waited and left does not end a cover that was drawn', async () => {
  const { id, revision } = await server.bringIn(bytes, 'Card.pdf');
  const { covers } = server.services;
  const waiting = new AbortController();
  const drawn = await covers.picture(id, revision, waiting.signal);
  waiting.abort();
  expect(await covers.picture(id, revision, new AbortController().signal)).toBe(drawn);
});
