// Does harm to a server, and looks whether it stands: once, or with new seeds for as long as is asked.
import { writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { emptyTally, type Check } from './check';
import { database } from './checks/database';
import { hostileFiles } from './checks/hostile-files';
import { ending, killing } from './checks/killing';
import { largeFiles } from './checks/large-files';
import { live } from './checks/live';
import { starving } from './checks/starving';
import { UnderFault } from './under-fault';

const CHECKS: readonly Check[] = [
  hostileFiles,
  largeFiles,
  killing,
  live,
  ending,
  starving,
  database,
];

const { values } = parseArgs({
  options: {
    minutes: { type: 'string', default: '0' },
    seed: { type: 'string', default: '1' },
    only: { type: 'string' },
    results: { type: 'string' },
    /** How many times as long as wanted anything may take. */
    leniency: { type: 'string', default: '1' },
  },
});
const end = Date.now() + Number(values.minutes) * 60_000;
const tally = emptyTally(Number(values.leniency));
let [passed, failed] = [0, 0];
let seed = Number(values.seed);
do {
  for (const check of CHECKS) {
    if (values.only && !check.name.includes(values.only)) continue;
    const server = await UnderFault.start();
    const begun = Date.now();
    try {
      await check.run(server, seed, tally);
      passed++;
      console.log(`ok: ${check.name} (seed ${seed}, ${Math.round((Date.now() - begun) / 1000)} s)`);
    } catch (error) {
      failed++;
      console.log(`FAILED: ${check.name} (seed ${seed}): ${String(error)}`);
      console.log(`The server said: ${server.said.slice(-3000)}`);
    } finally {
      await server.remove();
    }
  }
  seed++;
} while (Date.now() < end);

console.log(
  [
    `${tally.files} hostile files, ${tally.refused} of them refused`,
    `longest answer ${tally.longestAnswer} ms`,
    `most memory of the server ${tally.peakMemory} MB, of its programs ${tally.peakOfPrograms} MB`,
    `${tally.kills} kills`,
    `${tally.acknowledged} operations acknowledged, ${tally.lost} lost`,
  ].join('; '),
);
if (values.results) writeFileSync(values.results, JSON.stringify({ passed, failed }));
process.exit(failed === 0 ? 0 : 1);
