import { join, resolve } from 'node:path';
import { chromium, type Browser } from '@playwright/test';
import { build } from 'esbuild';
import { browserOptions } from '../e2e/support/browser';

export const root = resolve(import.meta.dirname, '..');

/** The browser that people have, not the one of the tests: it composes frames otherwise. */
export async function launch(args: readonly string[] = []): Promise<Browser> {
  const browser = await chromium.launch({
    ...browserOptions,
    executablePath: '/usr/bin/chromium',
    args: [...browserOptions.args, ...args],
  });
  // While something is measured nothing is loaded that is for later.
  const make = browser.newContext.bind(browser);
  browser.newContext = (options) => make({ serviceWorkers: 'block', ...options });
  return browser;
}

/** A module of `bench/pages` as one script. */
export async function bundle(name: string): Promise<string> {
  const { outputFiles } = await build({
    entryPoints: [join(root, 'bench/pages', `${name}.ts`)],
    bundle: true,
    write: false,
    format: 'iife',
    target: 'es2022',
    tsconfig: join(root, 'bench/tsconfig.json'),
  });
  return outputFiles[0].text;
}
