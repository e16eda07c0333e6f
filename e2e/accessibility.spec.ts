import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, test, SLIDE } from './support/fixtures';
import { still } from './support/still';

/** What axe-core finds (rules of WCAG 2 and best practices), by screen. Dark, only colours are others. */
async function found(page: Page, screen: string, isDark: boolean): Promise<string[]> {
  await still(page.locator(':root'));
  // Nothing here is of another origin, for which axe would open a page of its own each time.
  const axe = new AxeBuilder({ page }).setLegacyMode();
  const { violations } = await (isDark ? axe.withRules('color-contrast') : axe).analyze();
  return violations.flatMap(({ id, nodes }) =>
    nodes.map(({ html }) => `${screen}: ${id} ${html.slice(0, 160)}`),
  );
}

test.describe.configure({ timeout: 180_000 });

for (const isDark of [false, true])
  test(`axe finds nothing on any screen${isDark ? ', dark' : ''}`, async ({
    desk,
    deck,
    instance,
  }) => {
    const { page } = desk;
    const all: string[] = [];
    const look = async (screen: string): Promise<void> => {
      all.push(...(await found(page, screen, isDark)));
    };
    const key = (name: string): Promise<void> => page.keyboard.press(name);
    const closeDialog = async (): Promise<void> => {
      await key('Escape');
      await expect(page.locator('mat-dialog-container')).toHaveCount(0);
    };
    await desk.open(instance.url, deck);
    if (isDark) await key('d');
    await look('desk');
    await page.locator('stylet-rail .slot.active').click();
    await look('slot');
    await key('e');
    await page.getByLabel('Eraser, key E').click();
    await look('eraser');
    await key('l');
    await page.getByLabel('Lasso, key L').click();
    await look('lasso');
    await key('Escape');
    await page.getByLabel('Arrange the tools').click();
    await look('tools');
    await key('m');
    const middle = await desk.spot(1, 360, 300, SLIDE);
    await desk.pen([middle, middle]);
    await page.getByRole('textbox', { name: 'Note' }).pressSequentially('Which gauge?');
    await look('note that is typed');
    await key('Control+Enter');
    await look('margin');
    await key('Shift+M');
    await key('l');
    await key('Control+f');
    await page.keyboard.type('wave');
    await expect(page.locator('stylet-find-bar mark').first()).toBeVisible();
    await look('find in the document');
    await key('Escape');
    await expect(page.locator('stylet-find-bar')).toHaveCount(0);
    await key('o');
    await expect(page.getByRole('option').first()).toBeVisible();
    await look('board');
    await key('o');
    await key('?');
    await look('keys');
    await closeDialog();
    await page.getByRole('button', { name: 'Export' }).click();
    await look('export');
    await closeDialog();
    await key('r');
    await look('read');
    await page.getByLabel('How pages lie').click();
    await look('how pages lie');
    await key('Escape');
    await page.getByLabel('More', { exact: true }).click();
    await look('more');
    await page.getByRole('menuitem', { name: /^Hands/ }).click();
    await look('hands');
    await closeDialog();
    for (const path of ['/', '/find?typed=wave', '/keywords', '/trash']) {
      await page.goto(instance.url + path);
      await page.getByRole('main').waitFor();
      await look(path);
    }
    expect(all).toEqual([]);
  });
