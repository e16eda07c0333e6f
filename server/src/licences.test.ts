import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';

const root = join(__dirname, '../..');
const lockSchema = z.object({
  packages: z.record(
    z.string(),
    z.object({
      license: z.string().optional(),
      dev: z.boolean().optional(),
      devOptional: z.boolean().optional(),
      link: z.boolean().optional(),
      dependencies: z.record(z.string(), z.string()).optional(),
    }),
  ),
});
const { packages } = lockSchema.parse(
  JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8')),
);

/** SPDX names that may be shipped with a program under Apache-2.0, its notices kept. */
const PERMISSIVE =
  /^(MIT|ISC|0BSD|BSD-[23]-Clause|BSD-like|Apache-2\.0|BlueOak-1\.0\.0|CC0-1\.0|BSL-1\.0|(?:Python|PSF)-2\.0|OFL-1\.1|WTFPL|Zlib)$/;
/** Of several to choose from, one that is; of several that hold together, all of them. */
const isPermissive = (license: string): boolean =>
  license
    .replace(/^\((.*)\)$/, '$1')
    .split(' OR ')
    .some((one) => one.split(' AND ').every((part) => PERMISSIVE.test(part)));
/** Shared libraries that are loaded, and can be exchanged. */
const LOADED = /^node_modules\/@img\/sharp/;
/** Packages that say it only in their file LICENSE, and what that is. */
const IN_FILE: Readonly<Record<string, string>> = { domutils: 'BSD-2-Clause' };
const ENGINE = '@echogarden/espeak-ng-emscripten';

const nameOf = (path: string): string => path.slice(path.lastIndexOf('node_modules/') + 13);
const shipped = Object.entries(packages).filter(
  ([path, { dev, devOptional, link }]) =>
    path.includes('node_modules/') && !dev && !devOptional && !link,
);

test('what is shipped may be shipped with a program under Apache-2.0; what may not is apart', () => {
  expect(shipped.length).toBeGreaterThan(100);
  const others = shipped.filter(
    ([path, { license = IN_FILE[nameOf(path)] ?? '' }]) =>
      !isPermissive(license) && !LOADED.test(path),
  );
  expect(others.map(([path]) => nameOf(path))).toEqual([ENGINE]);
});

test('the speech engine is used by its own program alone', () => {
  const users = Object.entries(packages).filter(([, { dependencies }]) => dependencies?.[ENGINE]);
  expect(users.map(([path]) => path)).toEqual(['speech-engine']);
});

test('what is not under Apache-2.0 is named where people look for it', () => {
  const notice = readFileSync(join(root, 'NOTICE'), 'utf8');
  const fonts = ['EB Garamond', 'Noto Sans', 'Inter', 'Playpen Sans', 'Caveat', 'Unifont'];
  const named = ['Atkinson Hyperlegible Next', 'Source Serif 4', 'Material Symbols', ENGINE];
  for (const name of [
    ...named,
    ...fonts,
    'Droid Sans Fallback',
    'libvips',
    'WordNet 3.0 Copyright 2006',
  ])
    expect(notice).toContain(name);
  expect(readFileSync(join(root, 'LICENSE'), 'utf8')).toContain('Apache License');
  expect(readFileSync(join(root, 'speech-engine/LICENSE'), 'utf8')).toContain(
    'GNU GENERAL PUBLIC LICENSE',
  );
});
