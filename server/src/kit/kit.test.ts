import type { Kit } from '@stylet/core/api';
import { TestServer } from '../testing/server';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()));
afterAll(() => server.stop());

const kit: Kit = {
  version: 1,
  slots: [
    {
      id: 'one',
      name: 'Titles',
      instrument: 'nib',
      color: '#1f6f66',
      width: 1.2,
      smoothing: 0.3,
      opacity: 1,
    },
  ],
  eraser: { by: 'area', target: 'ink', size: 12, springsBack: true },
  buttons: { eraserEnd: 'eraser', barrel: 'undo' },
};
const kept = async (): Promise<unknown> => (await server.app.inject('/api/kit')).json();

test('there is no kit at first; one that is sent is kept, and takes the place of the one before', async () => {
  expect(await kept()).toEqual({ kit: null });
  const put = (payload: unknown) =>
    server.app.inject({ method: 'PUT', url: '/api/kit', payload: payload as object });
  expect((await put(kit)).statusCode).toBe(204);
  expect(await kept()).toEqual({ kit });
  const second = { ...kit, slots: [{ ...kit.slots[0], name: 'Margins' }] };
  await put(second);
  expect(await kept()).toEqual({ kit: second });
});

test.each([
  ['no slots', { ...kit, slots: [] }],
  ['a colour that is none', { ...kit, slots: [{ ...kit.slots[0], color: 'red' }] }],
  ['an eraser of half a metre', { ...kit, eraser: { ...kit.eraser, size: 1400 } }],
])('a kit with %s is refused and changes nothing', async (_, wrong) => {
  const before = await kept();
  const reply = await server.app.inject({ method: 'PUT', url: '/api/kit', payload: wrong });
  expect(reply.statusCode).toBe(400);
  expect(reply.json()).toMatchObject({ code: 'request-invalid' });
  expect(await kept()).toEqual(before);
});
