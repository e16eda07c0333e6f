import { smallPdf } from '../core/src/pdf/testing/small-file';
import { expect, test, SLIDE } from './support/fixtures';
import { DeskDriver } from './support/desk';
import type { Instance } from './support/instance';

interface Said {
  readonly id: string;
  readonly kind: string;
  readonly to?: string;
  readonly state?: string;
  readonly paragraphs: readonly { readonly runs: readonly { readonly text: string }[] }[];
}
const said = async (instance: Instance, id: string): Promise<Said[]> =>
  (await instance.annotations(id)) as unknown as Said[];
const wordsOf = ({ paragraphs }: Said): string =>
  paragraphs.map(({ runs }) => runs.map(({ text }) => text).join('')).join('\n');

const card = (desk: DeskDriver, words: string) =>
  desk.page.locator('stylet-note-card').filter({ hasText: words });
const typed = (desk: DeskDriver, name: 'Note' | 'Reply') =>
  desk.page.getByRole('textbox', { name, exact: true });

/** Puts a note on the first slide with the pen. */
async function note(desk: DeskDriver, x: number, y: number, words: string): Promise<void> {
  await desk.page.keyboard.press('m');
  const at = await desk.spot(1, x, y, SLIDE);
  await desk.pen([at, at]);
  await typed(desk, 'Note').pressSequentially(words);
  await desk.page.keyboard.press('Control+Enter');
  await desk.saved();
}

test('a note is put on the page by pen, answered, set and counted; one undo takes each back', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await note(desk, 400, 300, 'Which gauge?');
  const one = card(desk, 'Which gauge?');
  await one.getByRole('button', { name: 'Reply', exact: true }).click();
  await typed(desk, 'Reply').pressSequentially('The northern one.');
  await one.getByRole('button', { name: 'Done' }).click();
  await one.getByRole('button', { name: 'Review' }).click();
  await page.getByRole('menuitem', { name: 'Accept' }).click();
  await desk.saved();
  await expect(one.locator('.state')).toHaveText('Accepted');
  const all = await said(instance, deck);
  const [root] = all.filter(({ kind }) => kind === 'note');
  expect(all.map((a) => [a.kind, wordsOf(a), a.to, a.state])).toEqual(
    expect.arrayContaining([
      ['note', 'Which gauge?', undefined, undefined],
      ['reply', 'The northern one.', root.id, undefined],
      ['reply', 'Accepted', root.id, 'accepted'],
    ]),
  );

  const chip = page.getByRole('button', { name: 'Notes 1', exact: true });
  await chip.click();
  await expect(page.getByRole('treeitem', { name: /Notes: Which gauge\?/ })).toHaveAccessibleName(
    'Notes: Which gauge?, 1 reply · Accepted, page 1',
  );

  // From the Index as well.
  await page.getByRole('treeitem', { name: /Notes: Which gauge\?/ }).click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Open the note' }).click();
  await expect(page.locator('stylet-note-card.open')).toContainText('Which gauge?');

  await page.locator('stylet-page-strip').click({ position: { x: 5, y: 5 } });
  await page.keyboard.press('Control+z');
  await expect(one.locator('.state')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(one.locator('.reply')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(one).toHaveCount(0);
  await page.keyboard.press('Control+y');
  await page.keyboard.press('Control+y');
  await desk.saved();
  await expect(one.locator('.reply')).toHaveCount(1);

  // Gone with what was said to it, and back with it.
  await one.getByLabel('More for this note').click();
  await page.getByRole('menuitem', { name: 'Remove' }).click();
  await desk.saved();
  expect(await said(instance, deck)).toEqual([]);
  await page.keyboard.press('Control+z');
  await desk.saved();
  expect((await said(instance, deck)).map(({ kind }) => kind).sort()).toEqual(['note', 'reply']);
  await page.reload();
  await desk.drawn();
  await page.keyboard.press('Shift+M');
  await expect(one).toContainText('1 reply');
});

test('a card stands beside its place, follows it, and makes way for others', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await note(desk, 400, 120, 'One');
  await note(desk, 500, 124, 'Two');
  await note(desk, 300, 380, 'Three');
  await desk.still();
  const boxOf = async (words: string) => (await card(desk, words).boundingBox())!;
  const [one, two, three] = [await boxOf('One'), await boxOf('Two'), await boxOf('Three')];
  expect(two.y).toBeGreaterThanOrEqual(one.y + one.height);
  const strip = (await desk.page.locator('stylet-page-strip').boundingBox())!;
  expect(three.x).toBeGreaterThan(strip.x + strip.width);
  const place = await desk.spot(1, 300, 380, SLIDE);
  expect(Math.abs(three.y + 20 - place.y)).toBeLessThan(3);
  await desk.page.mouse.move(strip.x + 100, strip.y + 100);
  await desk.page.mouse.wheel(0, 60);
  await desk.still();
  const moved = await desk.spot(1, 300, 380, SLIDE);
  expect(moved.y).toBeLessThan(place.y - 50);
  expect(Math.abs((await boxOf('Three')).y + 20 - moved.y)).toBeLessThan(3);
  // Never on the pages: a stroke beside it is ink.
  await desk.page.keyboard.press('1');
  await desk.pen([await desk.spot(1, 700, 380, SLIDE), await desk.spot(1, 600, 380, SLIDE)]);
  await desk.saved();
  expect((await instance.annotations(deck)).filter(({ kind }) => kind === 'ink')).toHaveLength(1);
});

test('by keys alone: words are noted on in Read, cards are gone through, answered and closed', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.read(instance.url, deck, '4');
  const words = await desk.spot(4, 90, 150, SLIDE);
  await page.mouse.dblclick(words.x, words.y);
  await page.getByRole('button', { name: 'Note', exact: true }).click();
  await typed(desk, 'Reply').pressSequentially('A reference?');
  await page.keyboard.press('Control+Enter');
  await desk.saved();
  const all = await said(instance, deck);
  const mark = all.find(({ kind }) => kind === 'highlight')!;
  expect(all.find(({ kind }) => kind === 'reply')).toMatchObject({ to: mark.id });
  await expect(page.locator('stylet-note-card .head')).toBeFocused();
  await page.keyboard.press('r');
  await typed(desk, 'Reply').pressSequentially('In the register.');
  await page.keyboard.press('Escape');
  await expect(page.locator('stylet-note-card .reply')).toHaveCount(2);
  await page.keyboard.press('Escape');
  await expect(page.locator('stylet-note-card.open')).toHaveCount(0);
  await page.keyboard.press('Enter');
  await expect(page.locator('stylet-note-card.open')).toHaveCount(1);
  await desk.saved();
  expect((await said(instance, deck)).filter(({ kind }) => kind === 'reply')).toHaveLength(2);
});

test('notes of another program open where they are tapped, and are answered', async ({
  desk,
  instance,
}) => {
  const bytes = smallPdf([
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 720 405] /Annots [4 0 R 5 0 R 6 0 R] >>',
    '<< /Type /Annot /Subtype /Text /Rect [300 200 320 220] /T (Nerissa) /Contents (Is it so?) /Popup 5 0 R >>',
    '<< /Type /Annot /Subtype /Popup /Rect [0 0 90 90] /Parent 4 0 R >>',
    '<< /Type /Annot /Subtype /Text /Rect [300 200 320 220] /T (Oswin) /Contents (It is.) /IRT 4 0 R >>',
  ]);
  const id = await instance.bringIn(bytes, 'Reviewed.pdf');
  await desk.open(instance.url, id);
  await desk.page.getByRole('radio', { name: 'Read' }).click();
  await desk.page.getByRole('button', { name: /^Note of Nerissa/ }).click();
  const one = card(desk, 'Is it so?');
  await expect(one).toContainText('Oswin');
  await expect(one).toContainText('It is.');
  await one.getByRole('button', { name: 'Reply', exact: true }).click();
  await typed(desk, 'Reply').pressSequentially('Thank you.');
  await one.getByRole('button', { name: 'Done' }).click();
  await desk.saved();
  expect((await said(instance, id)).map(({ kind }) => kind).sort()).toEqual([
    'note',
    'reply',
    'reply',
  ]);
});

test('two who type in one note have the words of both', async ({
  desk,
  deck,
  instance,
  browser,
}) => {
  await desk.open(instance.url, deck);
  await note(desk, 400, 300, 'Which gauge?');
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const other = new DeskDriver(await context.newPage());
  await other.open(instance.url, deck);
  await other.page.keyboard.press('Shift+M');
  await card(other, 'Which gauge?').locator('.head').click();
  for (const one of [desk, other])
    await card(one, 'Which gauge?').getByRole('button', { name: 'Edit', exact: true }).click();
  await desk.page.keyboard.press('Control+End');
  await typed(desk, 'Note').pressSequentially(' The old one?');
  await other.page.keyboard.press('Control+Home');
  await typed(other, 'Note').pressSequentially('To Oswin: ');
  for (const one of [desk, other])
    await expect(typed(one, 'Note')).toHaveText('To Oswin: Which gauge? The old one?');
  await context.close();
});
