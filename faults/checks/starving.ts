import { spawn } from 'node:child_process';
import { insist, type Check } from '../check';
import { healthDuring } from '../under-fault';
import { Writer } from '../writing';
import { smallBook } from './database';

/** Other processes take the machine, and searches as heavy as there can be are asked for. */
export const starving: Check = {
  name: 'on a machine that has to do with others, and under the heaviest searches, changes are saved',
  async run(server, _seed, tally) {
    const eaters = [1, 2].map(() =>
      spawn(process.execPath, ['-e', 'for (;;);'], { stdio: 'ignore' }),
    );
    try {
      const writer = await Writer.on(server, smallBook());
      const letters = Array.from({ length: 16 }, (_, i) => String.fromCharCode(97 + i)).join('+');
      const health = await healthDuring(server, async () => {
        const searches = Array.from({ length: 6 }, () =>
          server.get(`/api/find?typed=${letters}&near=true`),
        );
        for (const reply of await Promise.all(searches)) {
          await reply.arrayBuffer();
          insist(reply.status < 500, `a search answers ${reply.status}`);
        }
        await writer.more(20);
      });
      insist(health < 5000 * tally.leniency, `health took ${health} ms`);
      await writer.finish(tally);
    } finally {
      for (const eater of eaters) eater.kill('SIGKILL');
    }
  },
};
