import { LineProgram } from './line-program';

const programs: LineProgram[] = [];
afterEach(() => programs.splice(0).forEach((program) => program.end()));

/** A program that answers each line by what a script makes of it. */
function answering(script: string, longestAnswer?: number): LineProgram {
  const loop = `require('node:readline').createInterface({ input: process.stdin }).on('line', (line) => { ${script} });`;
  const settings = { program: process.execPath, args: ['-e', loop] };
  const program = new LineProgram(longestAnswer ? { ...settings, longestAnswer } : settings);
  programs.push(program);
  return program;
}
const ever = new AbortController().signal;

test('each line is answered by one, also after the program has ended and was begun anew', async () => {
  const program = answering(
    'const { n } = JSON.parse(line); console.log(JSON.stringify({ n: n + 1, pid: process.pid }));',
  );
  const [one, two] = [await program.ask({ n: 1 }, ever), await program.ask({ n: 2 }, ever)];
  expect(one).toMatchObject({ n: 2 });
  expect(two).toEqual({ ...(one as object), n: 3 });
  program.end();
  const three = await program.ask({ n: 3 }, ever);
  expect(three).toMatchObject({ n: 4 });
  expect(three).not.toMatchObject({ pid: (two as { pid: number }).pid });
});

test.each([
  ['it ends', 'process.exit(1);'],
  ['it answers what nobody can read', 'console.log("tide");'],
  ['its answer has no end', 'setInterval(() => process.stdout.write("x".repeat(100_000)), 1);'],
])('when %s, that is told, and the next is asked of a new one', async (_, script) => {
  const program = answering(script, 1_000_000);
  for (let i = 0; i < 2; i++)
    await expect(program.ask({}, ever)).rejects.toMatchObject({ code: 'tool-failed' });
});

test('what is given up ends the program; one that cannot be started says so', async () => {
  const program = answering('');
  const stop = new AbortController();
  const asked = program.ask({}, stop.signal);
  setTimeout(() => stop.abort(new Error('nobody waits')), 100);
  await expect(asked).rejects.toThrow('nobody waits');
  const none = new LineProgram({ program: '/there/is/none', args: [] });
  await expect(none.ask({}, ever)).rejects.toMatchObject({ code: 'tool-failed' });
});
