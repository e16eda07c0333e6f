import { Tidying } from './tidying';

/** A document that, like pdf.js, refuses to let go while something is at work. */
function strict() {
  const seen = { atWork: 0, tidied: 0, refused: 0 };
  const tidying = new Tidying(() =>
    Promise.resolve({
      cleanup: async () => {
        if (seen.atWork > 0) seen.refused++;
        await later();
        if (seen.atWork > 0) seen.refused++;
        seen.tidied++;
      },
    }),
  );
  return { seen, tidying };
}
const later = (): Promise<void> => new Promise((done) => setTimeout(done, 1));

test('a document is tidied now and then, though there is always work, and never during it', async () => {
  const { seen, tidying } = strict();
  let left = 60;
  const draw = async (): Promise<void> => {
    while (left-- > 0)
      await tidying.during(async () => {
        seen.atWork++;
        await later();
        tidying.drew();
        seen.atWork--;
      });
  };
  await Promise.all([draw(), draw()]);
  expect(seen).toEqual({ atWork: 0, tidied: 2, refused: 0 });
});

test('where a page is still being read the document is tidied after the next one', async () => {
  let tries = 0;
  const tidying = new Tidying(() =>
    Promise.resolve({
      cleanup: () =>
        ++tries === 1
          ? Promise.reject(new Error('startCleanup: Page 7 is currently rendering.'))
          : Promise.resolve(),
    }),
  );
  for (let i = 0; i < 24; i++) await tidying.during(() => Promise.resolve(tidying.drew()));
  await tidying.during(later);
  expect(tries).toBe(1);
  await tidying.during(() => Promise.resolve(tidying.drew()));
  await tidying.during(later);
  expect(tries).toBe(2);
});

test('work that fails does not keep the document from being tidied', async () => {
  const { seen, tidying } = strict();
  for (let i = 0; i < 24; i++)
    await tidying
      .during(() => {
        tidying.drew();
        return Promise.reject(new Error('damaged'));
      })
      .catch(() => undefined);
  await tidying.during(later);
  expect(seen.tidied).toBe(1);
});
