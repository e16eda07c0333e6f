import { createHash } from 'node:crypto';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, SLIDE } from './support/fixtures';
import { Instance } from './support/instance';
import { OwnBrowser } from './support/own-browser';

/** Makes a new version of a program: its page says which, and the list of its parts has the digest of that. */
function makeVersion(web: string, version: number): void {
  const [page, list] = [join(web, 'index.html'), join(web, 'ngsw.json')];
  const html = readFileSync(page, 'utf8')
    .replace(/ data-version="\d+"/, '')
    .replace('<html', `<html data-version="${version}"`);
  writeFileSync(page, html);
  const parts = JSON.parse(readFileSync(list, 'utf8')) as {
    timestamp: number;
    hashTable: Record<string, string>;
  };
  parts.timestamp = Date.now();
  parts.hashTable['/index.html'] = createHash('sha1').update(html).digest('hex');
  writeFileSync(list, JSON.stringify(parts));
}

test('a new version is taken when one wants; a browser that is killed while it comes starts all the same', async ({
  playwright,
  deckPdf,
}, { workerIndex }) => {
  test.slow();
  const web = mkdtempSync(join(tmpdir(), 'stylet-web-'));
  cpSync(process.env['STYLET_WEB']!, web, { recursive: true });
  const instance = await Instance.create(`e2e_versions_${workerIndex}`, { STYLET_WEB: web });
  const browser = new OwnBrowser(playwright.chromium);
  try {
    await instance.start();
    const deck = await instance.bringIn(deckPdf, 'Waves and tides.pdf');
    const first = await browser.launched();
    await first.open(instance.url, deck);
    await first.keptHere();
    await first.programKept();
    makeVersion(web, 1);
    await first.page.reload();
    await first.drawn();
    const told = first.page.getByText('A new version of Stylet is here. What you do is kept.');
    await expect(told).toBeVisible({ timeout: 60_000 });
    // Nothing is taken out of anybody's hands.
    const versionOf = (desk = first) => desk.page.locator('html').getAttribute('data-version');
    expect(await versionOf()).toBeNull();
    await first.pen([await first.spot(1, 80, 30, SLIDE), await first.spot(1, 300, 30, SLIDE)]);
    await first.saved();
    await first.page.getByRole('button', { name: 'Take it' }).click();
    await expect(first.page.locator('html')).toHaveAttribute('data-version', '1');
    await first.drawn();

    let desk = first;
    for (const [i, delay] of [100, 500, 1500].entries()) {
      makeVersion(web, i + 2);
      await desk.page.reload();
      await desk.pause(delay);
      await browser.kill();
      await instance.kill();
      desk = await browser.launched();
      await desk.page.goto(`${instance.url}/documents/${deck}`);
      await desk.drawn();
      expect(['1', '2', '3', '4'].slice(0, i + 2)).toContain(await versionOf(desk));
      await instance.start();
      await desk.saved();
    }
    expect(await instance.annotations(deck)).toHaveLength(1);
    await desk.page.context().close();
  } finally {
    await browser.remove();
    await instance.remove();
    rmSync(web, { recursive: true, force: true });
  }
});
