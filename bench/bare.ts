import type { BrowserContext, Page } from '@playwright/test';
import { bundle } from './browser';
import type { Instance } from '../e2e/support/instance';

/** A page of the server's with nothing but pdf.js as it comes, which has a document's file open. */
export async function openBare(
  context: BrowserContext,
  instance: Instance,
  id: string,
): Promise<Page> {
  const bare = await context.newPage();
  await bare.route('**/bare', (route) =>
    route.fulfill({ contentType: 'text/html', body: '<!doctype html><body></body>' }),
  );
  await bare.goto(`${instance.url}/bare`);
  await bare.addScriptTag({ content: await bundle('bare-pages') });
  await bare.evaluate(
    (url) => (globalThis as unknown as { openBare(u: string): Promise<void> }).openBare(url),
    `${instance.url}/api/documents/${id}/file`,
  );
  return bare;
}
