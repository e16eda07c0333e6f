// Keeps the server running: one that dies is started again, and that is said.
import { spawn } from 'node:child_process';
import { existsSync, unwatchFile, watchFile } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const SERVER = fileURLToPath(new URL('../server/dist/main.js', import.meta.url));
/** Pauses before it is started again, in ms; and how long it has to run for the next pause to be short again. */
const SHORTEST_PAUSE = 500;
const LONGEST_PAUSE = 10_000;
const SETTLED = 60_000;
/** One that never comes up is not started for ever. */
const MOST_FAILURES = 8;

/** Where a certificate is or comes to be, and how often that is looked for, in ms. */
const TLS = process.env.STYLET_TLS_AT;
const CERTIFICATE = TLS && join(TLS, 'server.pem');
const LOOKED_EVERY = 2000;

/** Starts the server, and again with a certificate that has come; `ended` is told its code when it is over for good. What is returned stops it. */
export function superviseServer(ended) {
  let server;
  let timer;
  let isStopping = false;
  let isRenewed = false;
  let pause = SHORTEST_PAUSE;
  let failures = 0;

  function start() {
    const begun = Date.now();
    const hasCertificate = CERTIFICATE && existsSync(CERTIFICATE);
    const env = hasCertificate ? { ...process.env, STYLET_TLS: TLS } : process.env;
    server = spawn(process.execPath, [SERVER], { stdio: 'inherit', env });
    server.on('exit', (code, signal) => {
      if (isRenewed && !isStopping) {
        isRenewed = false;
        start();
        return;
      }
      if (isStopping || code === 0) {
        ended(code ?? 0);
        return;
      }
      const hasSettled = Date.now() - begun > SETTLED;
      failures = hasSettled ? 1 : failures + 1;
      pause = hasSettled ? SHORTEST_PAUSE : Math.min(LONGEST_PAUSE, 2 * pause);
      const how = signal ? `was ended by ${signal}` : `ended with code ${code}`;
      if (failures >= MOST_FAILURES) {
        console.error(`The server ${how}, ${failures} times in a row; it is not started again.`);
        ended(code ?? 1);
        return;
      }
      console.error(`The server ${how}. It is started again in ${pause / 1000} s.`);
      timer = setTimeout(start, pause);
    });
  }

  start();
  if (CERTIFICATE)
    watchFile(CERTIFICATE, { interval: LOOKED_EVERY }, ({ size }) => {
      if (size === 0 || isStopping) return;
      console.log('There is a new certificate: the server starts again with it.');
      isRenewed = true;
      server.kill('SIGTERM');
    });
  return (signal) => {
    isStopping = true;
    if (CERTIFICATE) unwatchFile(CERTIFICATE);
    clearTimeout(timer);
    if (server.exitCode === null && server.signalCode === null) server.kill(signal);
    else ended(0);
  };
}
