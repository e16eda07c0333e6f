import { isAway } from './away';
import { connect } from './database';

const asked = async (url: string, statement = 'select 1'): Promise<unknown> => {
  const { database, close } = connect(url, () => undefined);
  try {
    await database.execute(statement);
    return undefined;
  } catch (error) {
    return error;
  } finally {
    await close();
  }
};

// PostgreSQL, appendix A: 3D000, 28P01, 55000; Linux: ECONNREFUSED.
test.each([
  ['is not there', (url: URL) => (url.pathname = '/nowhere')],
  ['wants another password', (url: URL) => (url.password = 'wrong')],
  ['lets nobody in', (url: URL) => (url.pathname = '/template0')],
  ['does not listen', (url: URL) => (url.port = '1')],
])('a database that %s is away: what was to be done is tried again', async (_, change) => {
  const url = new URL(`${process.env['STYLET_DATABASE_SERVER']}/postgres`);
  change(url);
  expect(isAway(await asked(url.href))).toBe(true);
});

test('a statement that is wrong is no reason to try again', async () => {
  const url = `${process.env['STYLET_DATABASE_SERVER']}/postgres`;
  const error = await asked(url, 'select wrong');
  expect(error).toBeDefined();
  expect(isAway(error)).toBe(false);
});
