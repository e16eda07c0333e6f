import { readFileSync } from 'node:fs';
import { PRESENCES_A_SECOND, PRESENCE_LASTS, type Presence } from '@stylet/core/api';
import { newId } from '@stylet/core/document';
import { LiveWindow } from '../testing/live-window';
import { TestServer, realPdf } from '../testing/server';
import { Presences } from './presences';

const presence = (name: string, points?: number[]): Presence => ({
  name,
  hue: 2,
  place: { pageId: newId(), share: 0.25 },
  pen: points ? { pageId: newId(), stroke: 1, from: 0, points, fades: false } : null,
});

/** Servers that tell each other everything, as those on one PostgreSQL do. */
function servers(count: number) {
  const payloads: string[] = [];
  const all: Presences[] = Array.from(
    { length: count },
    () =>
      new Presences((payload) => {
        payloads.push(payload);
        for (const one of all) one.told(payload);
        return Promise.resolve();
      }),
  );
  return { all, payloads };
}

/** A window that notes what it is told: of whom, and where that is. */
function windowAt(server: Presences, documentId: string, name: string) {
  const told: [string, Presence | null][] = [];
  const leave = server.join(documentId, name, (other, what) => told.push([other, what]));
  return { told, leave, say: (what: Presence | null) => server.say(documentId, name, what) };
}

describe('servers without a database', () => {
  const documentId = newId();
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  test('windows of one document hear of each other, whichever server they are with, and of no other', async () => {
    const { all } = servers(2);
    const here = windowAt(all[0], documentId, 'here');
    const beside = windowAt(all[0], documentId, 'beside');
    const there = windowAt(all[1], documentId, 'there');
    const elsewhere = windowAt(all[1], newId(), 'elsewhere');
    await jest.advanceTimersByTimeAsync(100);
    const ada = presence('Ada', [1, 2, 3, 4]);
    here.say(ada);
    await jest.advanceTimersByTimeAsync(100);
    expect([here.told, beside.told, there.told, elsewhere.told]).toEqual([
      [],
      [['here', ada]],
      [['here', ada]],
      [],
    ]);
    here.leave();
    await jest.advanceTimersByTimeAsync(100);
    expect([beside.told.at(-1), there.told.at(-1)]).toEqual([
      ['here', null],
      ['here', null],
    ]);
    for (const one of all) one.stop();
  });

  test('who comes later is told who is here, but not of strokes that are over', async () => {
    const { all } = servers(2);
    const here = windowAt(all[0], documentId, 'here');
    const ada = presence('Ada', [1, 2]);
    here.say(ada);
    await jest.advanceTimersByTimeAsync(300);
    const beside = windowAt(all[0], documentId, 'beside');
    const there = windowAt(all[1], documentId, 'there');
    await jest.advanceTimersByTimeAsync(200);
    expect([beside.told, there.told]).toEqual([
      [['here', { ...ada, pen: null }]],
      [['here', { ...ada, pen: null }]],
    ]);
    for (const one of all) one.stop();
  });

  test('servers that did not listen yet when they told each other hear of each other once they do', async () => {
    const { all } = servers(2);
    const told = all.map((one) => jest.spyOn(one, 'told').mockImplementation(() => undefined));
    const here = windowAt(all[0], documentId, 'here');
    const there = windowAt(all[1], documentId, 'there');
    const ada = presence('Ada');
    here.say(ada);
    await jest.advanceTimersByTimeAsync(100);
    expect(there.told).toEqual([]);
    for (const one of told) one.mockRestore();
    all[0].missed();
    await jest.advanceTimersByTimeAsync(300);
    expect(there.told).toEqual([['here', ada]]);
    for (const one of all) one.stop();
  });

  test('a server that is alone tells the database next to nothing', async () => {
    const { all, payloads } = servers(1);
    const here = windowAt(all[0], documentId, 'here');
    for (let i = 0; i < 200; i++) here.say(presence('Ada', [i, i]));
    await jest.advanceTimersByTimeAsync(1000);
    expect(payloads).toHaveLength(1);
    all[0].stop();
  });

  test('payloads are as long as PostgreSQL takes them (LISTEN/NOTIFY: less than 8000 bytes), however much there is', async () => {
    const { all, payloads } = servers(2);
    windowAt(all[1], documentId, 'there');
    await jest.advanceTimersByTimeAsync(100);
    const points = Array.from({ length: 128 }, (_, i) => i * 1.123456);
    const here = windowAt(all[0], documentId, 'here');
    await jest.advanceTimersByTimeAsync(100);
    payloads.length = 0;
    for (let i = 0; i < 60; i++) here.say(presence('潮'.repeat(200), points));
    await jest.advanceTimersByTimeAsync(1000);
    expect(payloads.length).toBeGreaterThan(5);
    expect(Math.max(...payloads.map((payload) => Buffer.byteLength(payload)))).toBeLessThan(8000);
    for (const one of all) one.stop();
  });

  test('a window that is not heard of any more is gone', async () => {
    const { all } = servers(1);
    const here = windowAt(all[0], documentId, 'here');
    const beside = windowAt(all[0], documentId, 'beside');
    here.say(presence('Ada'));
    await jest.advanceTimersByTimeAsync(PRESENCE_LASTS + 11_000);
    expect(beside.told.at(-1)).toEqual(['here', null]);
    all[0].stop();
  });

  test('what other versions say is passed over', () => {
    const { all } = servers(1);
    for (const payload of ['', '{', '{"server":"x","words":[{"what":1}]}']) all[0].told(payload);
    all[0].stop();
  });
});

test('over sockets and two servers: who is here, who goes, and no faster than may be', async () => {
  const first = await TestServer.start();
  const second = await first.beside();
  const [url, otherUrl] = [await first.listen(), await second.listen()];
  const { id } = await first.bringIn(readFileSync(realPdf('debian-refcard/refcard-en-a4.pdf')));
  const [here, there] = [new LiveWindow(id), new LiveWindow(id)];
  try {
    for (const [window, at] of [
      [here, url],
      [there, otherUrl],
    ] as const) {
      await window.load(url);
      await window.connect(at);
      window.open();
      await window.first('operations');
    }
    const ada = presence('Ada');
    here.say({ kind: 'here', documentId: id, presence: ada });
    expect(await there.first('there')).toMatchObject({ documentId: id, presence: ada });
    for (let i = 0; i < 400; i++) here.say({ kind: 'here', documentId: id, presence: ada });
    here.breakOff();
    const isGone = () => there.heard.some((one) => one.kind === 'there' && one.presence === null);
    for (let i = 0; i < 400 && !isGone(); i++) await new Promise((done) => setTimeout(done, 10));
    expect(isGone()).toBe(true);
    const count = there.heard.filter(({ kind }) => kind === 'there').length;
    expect(count).toBeLessThan(3 * PRESENCES_A_SECOND);
  } finally {
    there.breakOff();
    await second.stop();
    await first.stop();
  }
});
