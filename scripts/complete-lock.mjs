// Adds to package-lock.json the optional platform packages that the registry at hand did not offer when
// the lock was made: npm leaves them out, and `npm ci` then refuses the lock. They are never
// installed on a platform they are not for. Run it after `npm install`.
import { readFile, writeFile } from 'node:fs/promises';

const path = new URL('../package-lock.json', import.meta.url);
const lock = JSON.parse(await readFile(path, 'utf8'));
const { packages } = lock;
for (const [place, entry] of Object.entries(packages)) {
  for (const [name, version] of Object.entries(entry.optionalDependencies ?? {})) {
    const platform = /(darwin|linux|win32|android|freebsd|openharmony)-([a-z0-9]+)/.exec(name);
    const isHere = platform?.[1] === process.platform && platform[2] === process.arch;
    if (!platform || isHere || isLocked(place, name)) continue;
    packages[`node_modules/${name}`] = {
      version: version.replace(/^[~^]/, ''),
      ...(entry.dev ? { dev: true } : {}),
      optional: true,
      os: [platform[1]],
      cpu: [platform[2]],
    };
  }
}
/** Whether a package finds another by going up the folders, as Node does. */
function isLocked(place, name) {
  for (let at = place; ; at = at.slice(0, Math.max(0, at.lastIndexOf('node_modules/') - 1))) {
    if (packages[`${at === '' ? '' : `${at}/`}node_modules/${name}`]) return true;
    if (at === '') return false;
  }
}

const sorted = Object.entries(packages).sort(([a], [b]) => (a < b ? -1 : 1));
await writeFile(
  path,
  `${JSON.stringify({ ...lock, packages: Object.fromEntries(sorted) }, null, 2)}\n`,
);
