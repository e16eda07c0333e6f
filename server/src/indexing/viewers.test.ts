import fastify from 'fastify';
import { Viewers } from './viewers';

const viewers = new Viewers();
const app = fastify();
viewers.watch(app);
app.get('/page', () => 'a page');
app.get('/progress', { config: { isUnwatched: true } }, () => 'half');

afterAll(() => app.close());
afterEach(() => jest.useRealTimers());

const ask = async (url: string): Promise<void> => {
  expect((await app.inject(url)).statusCode).toBe(200);
};

test('whoever asks for a page is there for a while; asking how far reading is does not count', async () => {
  expect(viewers.areThere()).toBe(false);
  await ask('/progress');
  expect(viewers.areThere()).toBe(false);
  await ask('/page');
  expect(viewers.areThere()).toBe(true);
});

test('what gives way goes on once they have gone, after its time, or when it is over', async () => {
  await ask('/page');
  await viewers.rest(120, () => false);
  expect(viewers.areThere()).toBe(true);
  let looked = 0;
  await viewers.rest(60_000, () => ++looked > 2);
  expect(viewers.areThere()).toBe(true);
  await viewers.rest(60_000, () => false);
  expect(viewers.areThere()).toBe(false);
});
