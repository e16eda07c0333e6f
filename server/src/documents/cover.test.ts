import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { TestServer, realPdf } from '../testing/server';

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
