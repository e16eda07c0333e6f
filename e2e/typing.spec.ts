import type { PNG } from 'pngjs';
import { writeFileSync, mkdtempSync, rmSync } from 'node:fs';
import { execFileSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, SLIDE } from './support/fixtures';
import { DeskDriver } from './support/desk';
import type { Instance } from './support/instance';

interface Box {
  readonly id: string;
  readonly order: string;
  readonly kind: string;
  readonly color: string;
  readonly paragraphs: readonly {
    readonly list?: string;
    readonly runs: readonly { readonly text: string; readonly look?: object }[];
  }[];
  readonly look: object;
  readonly size: { readonly width: number; readonly height: number };
  readonly transform: readonly number[];
}

const WORDS =
  'The tide gauge stands beside the landing stage; offices differ by 12.5 cm from what the table says, and café Ebb opens late.';

const editor = (desk: DeskDriver) => desk.page.getByRole('textbox', { name: 'Typed text' });

/** The boxes of a document as they lie over each other: the server has them in no order. */
const boxesOf = async (instance: Instance, id: string): Promise<Box[]> =>
  ((await instance.annotations(id)) as unknown as Box[]).sort((a, b) =>
    a.order < b.order ? -1 : 1,
  );

/** Begins to type where the pen taps, or in a box of a width that it drags. */
async function begin(desk: DeskDriver, x: number, y: number, width = 0): Promise<void> {
  await desk.page.getByLabel('Text, key T').click();
  const [from, to] = [
    await desk.spot(1, x, y, SLIDE),
    await desk.spot(1, x + width, y + (width > 0 ? 30 : 0), SLIDE),
  ];
  await desk.pen([from, to]);
  await expect(editor(desk)).toBeFocused();
  // It stands where it is laid out to once its fonts have come.
  await desk.page.waitForFunction(() => document.fonts.status === 'loaded');
}

/** The lines that the browser edits: their words and where their baselines' boxes begin and end, in CSS pixels. */
const editedLines = (
  desk: DeskDriver,
): Promise<{ text: string; left: number; right: number; y: number }[]> =>
  editor(desk).evaluate((element) => {
    const lines: { text: string; left: number; right: number; y: number }[] = [];
    const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode())
      for (let i = 0; i < node.nodeValue!.length; i++) {
        const range = document.createRange();
        range.setStart(node, i);
        range.setEnd(node, i + 1);
        const rect = range.getBoundingClientRect();
        const y = rect.top + rect.height / 2;
        const last = lines.at(-1);
        if (last && Math.abs(last.y - y) < 3) {
          last.text += node.nodeValue![i];
          // Spaces at the end of a line hang over its edge.
          if (node.nodeValue![i] !== ' ') last.right = Math.max(last.right, rect.right);
        } else lines.push({ text: node.nodeValue![i], left: rect.left, right: rect.right, y });
      }
    return lines;
  });

const exportOf = async (url: string, id: string): Promise<Uint8Array> =>
  new Uint8Array(
    await (await fetch(`${url}/api/documents/${id}/export?annotations=editable`)).arrayBuffer(),
  );

/** The lines of text that poppler finds on the first page of an export. */
function exportedLines(pdf: Uint8Array): string[] {
  const folder = mkdtempSync(join(tmpdir(), 'stylet-typed-'));
  try {
    writeFileSync(join(folder, 'a.pdf'), pdf);
    const text = execFileSync(
      'pdftotext',
      ['-f', '1', '-l', '1', '-raw', join(folder, 'a.pdf'), '-'],
      { encoding: 'utf8' },
    );
    return text.split('\n').map((line) => line.trim());
  } finally {
    rmSync(folder, { recursive: true });
  }
}

test('what is typed stays where it is, its lines the same while one types, on the page and in the export', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await begin(desk, 80, 230, 240);
  await desk.page.keyboard.type(WORDS);
  await desk.saved();
  const lines = (await editedLines(desk)).map((line) => ({ ...line, text: line.text.trim() }));
  expect(lines.length).toBeGreaterThan(2);
  expect(lines.map(({ text }) => text).join(' ')).toBe(WORDS);
  // The browser's own letters, by which carets stand, lie under those that are seen: no line is longer than its box.
  const box = (await editor(desk).boundingBox())!;
  const [first] = (await instance.annotations(deck)) as unknown as Box[];
  const scale = box.width / (first.size.width - 8);
  expect(Math.max(...lines.map(({ right }) => right)) - box.x).toBeLessThan(box.width + scale);
  const clip = { x: box.x - 2, y: box.y - 2, width: box.width + 4, height: box.height + 4 };
  await desk.page.mouse.move(5, 300);
  await desk.page.addStyleTag({
    content:
      'stylet-text-editor .text { caret-color: transparent !important; outline: none !important }',
  });
  const typing = await desk.rested(clip);
  await desk.page.keyboard.press('Escape');
  await expect(editor(desk)).toHaveCount(0);
  const there = await desk.rested(clip);
  // Nothing jumps: pixel by pixel but for soft edges.
  expect(differing(typing, there)).toBeLessThan(0.005);
  const exported = exportedLines(await exportOf(instance.url, deck));
  for (const { text } of lines) expect(exported).toContain(text);
});

/** The share of pixels that are not nearly the same. */
function differing(a: PNG, b: PNG): number {
  let count = 0;
  for (let i = 0; i < a.data.length; i += 4) if (Math.abs(a.data[i] - b.data[i]) > 60) count++;
  return count / (a.data.length / 4);
}

test('looks are given to selected words, paragraphs become lists, and a burst of typing is one step', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await begin(desk, 80, 230);
  await page.keyboard.type('Low water');
  await page.keyboard.press('Shift+Home');
  await page.keyboard.press('Control+b');
  await page.getByRole('toolbar', { name: 'Typed text' }).getByLabel('Font').click();
  await page.getByRole('menuitem', { name: 'Caveat' }).click();
  await expect(editor(desk)).toBeFocused();
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await page.getByLabel('Paragraph', { exact: true }).click();
  await page.getByRole('button', { name: 'Check list' }).click();
  await page.keyboard.press('Escape');
  await expect(editor(desk)).toBeFocused();
  await page.keyboard.type('read the gauge');
  await desk.saved();
  await expect
    .poll(async () =>
      ((await instance.annotations(deck)) as unknown as Box[])[0]?.paragraphs.map(
        ({ list, runs }) => ({ list, runs }),
      ),
    )
    .toEqual([
      { runs: [{ text: 'Low water', look: { bold: true, font: 'caveat' } }] },
      { list: 'check', runs: [expect.objectContaining({ text: 'read the gauge' })] },
    ]);
  await page.keyboard.press('Escape');
  await expect(editor(desk)).toHaveCount(0);
  // Typed again into what is there: a step of its own.
  const at = await desk.spot(1, 90, 240, SLIDE);
  await desk.pen([at, at]);
  await expect(editor(desk)).toContainText('Low water');
  await page.keyboard.press('Control+End');
  await page.keyboard.type(' twice');
  await page.keyboard.press('Escape');
  await desk.saved();
  const words = async () =>
    ((await instance.annotations(deck)) as unknown as Box[]).map(({ paragraphs }) =>
      paragraphs.map(({ runs }) => runs.map(({ text }) => text).join('')).join('\n'),
    );
  await expect.poll(words).toEqual(['Low water\nread the gauge twice']);
  await page.keyboard.press('Control+z');
  await expect.poll(words).toEqual(['Low water\nread the gauge']);
});

test('a look is saved as a style, given to another box with one tap, and kept with the kit', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await begin(desk, 80, 230);
  const bar = page.getByRole('toolbar', { name: 'Typed text' });
  await bar.getByLabel('Size in points').fill('18');
  await bar.getByLabel('Size in points').press('Enter');
  await page.keyboard.type('Title');
  await bar.getByRole('button', { name: 'Save style' }).click();
  await expect(bar.getByText('Source Serif 18')).toBeVisible();
  await bar.getByRole('button', { name: 'Done' }).click();
  await begin(desk, 80, 330);
  await bar.getByLabel('Size in points').fill('9');
  await bar.getByLabel('Size in points').press('Enter');
  await page.keyboard.type('small');
  await bar.getByText('Source Serif 18').click();
  await page.keyboard.press('Escape');
  await desk.saved();
  await expect
    .poll(async () =>
      (await boxesOf(instance, deck)).map(({ look, paragraphs }) => ({
        look,
        words: paragraphs.map(({ runs }) => runs.map(({ text }) => text).join('')),
      })),
    )
    .toEqual([
      { look: { font: 'source-serif-4', size: 18 }, words: ['Title'] },
      { look: { font: 'source-serif-4', size: 18 }, words: ['small'] },
    ]);
  await page.reload();
  await desk.drawn();
  await begin(desk, 300, 330);
  await expect(bar.getByText('Source Serif 18')).toBeVisible();
  await bar.getByLabel('Size in points').fill('9');
  await bar.getByLabel('Size in points').press('Enter');
  await page.keyboard.type('third');
  await page.keyboard.press('Escape');
  await desk.saved();
  // A box that is selected takes it without being edited.
  const third = async () => (await boxesOf(instance, deck))[2];
  const { size } = await third();
  await page.getByLabel('Lasso, key L').click();
  const at = await desk.spot(1, 306, 338, SLIDE);
  await desk.pen([at, at]);
  await page.getByRole('button', { name: 'Text style' }).click();
  await page.getByRole('menuitem', { name: 'Source Serif 18' }).click();
  await expect.poll(async () => (await third()).look).toMatchObject({ size: 18 });
  expect((await third()).size.height).toBeGreaterThan(1.5 * size.height);
  await page.keyboard.press('Control+z');
  await expect.poll(third).toMatchObject({ look: { size: 9 }, size });
});

test('typed text is seen in another window while it is typed', async ({
  desk,
  deck,
  instance,
  context,
}) => {
  await desk.open(instance.url, deck);
  const other = await context.newPage();
  await other.goto(`${instance.url}/documents/${deck}`);
  await expect(other.locator('stylet-page-view').first()).toBeVisible();
  await desk.page.bringToFront();
  await begin(desk, 80, 230);
  await desk.page.keyboard.type('Seen at once');
  await expect(other.getByText('Typed text 1')).toBeVisible();
  await expect(editor(desk)).toBeFocused();
});

test('two type in one box at the same time: both have the words of both, and go on where they were', async ({
  desk,
  deck,
  instance,
  browser,
}) => {
  const boxes = () => boxesOf(instance, deck);
  const words = async () => (await boxes()).map((box) => box.paragraphs[0].runs[0].text);
  await desk.open(instance.url, deck);
  await begin(desk, 80, 230);
  await desk.page.keyboard.type('High water');
  await expect.poll(words).toEqual(['High water']);
  const elsewhere = await browser.newContext({ viewport: desk.page.viewportSize() });
  try {
    const other = new DeskDriver(await elsewhere.newPage());
    await other.open(instance.url, deck);
    await begin(other, 84, 236);
    await expect(editor(other)).toHaveText('High water');
    await other.page.keyboard.press('Control+Home');
    await Promise.all([
      desk.page.keyboard.type(' at noon, low at six', { delay: 60 }),
      other.page.keyboard.type('Spring: ', { delay: 150 }),
    ]);
    const both = 'Spring: High water at noon, low at six';
    for (const one of [desk, other]) await expect(editor(one)).toHaveText(both);
    await other.page.keyboard.type('today ');
    await desk.page.keyboard.type('!');
    const all = 'Spring: today High water at noon, low at six!';
    for (const one of [desk, other]) await expect(editor(one)).toHaveText(all);
    await expect.poll(words).toEqual([all]);
    for (const one of [desk, other])
      await expect(one.page.getByText('that you changed too')).toHaveCount(0);
    // Each takes back only what is theirs.
    await other.page.keyboard.press('Escape');
    await desk.page.keyboard.press('Escape');
    await other.page.keyboard.press('Control+z');
    await other.page.keyboard.press('Control+z');
    await expect.poll(words).toEqual(['High water at noon, low at six!']);
  } finally {
    await elsewhere.close();
  }
});

test('a box is as wide as its side is dragged to, its lines ending there; and undone in one step', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await begin(desk, 80, 230);
  await desk.page.keyboard.type(WORDS.slice(0, 60));
  await desk.page.keyboard.press('Escape');
  await desk.saved();
  const box = async () => ((await instance.annotations(deck)) as unknown as Box[])[0];
  const before = await box();
  await desk.page.getByLabel('Lasso, key L').click();
  const at = await desk.spot(1, 100, 240, SLIDE);
  await desk.pen([at, at]);
  const grip = desk.page.getByLabel('Stretch from the right');
  const { x, y, width, height } = (await grip.boundingBox())!;
  const from = { x: x + width / 2, y: y + height / 2 };
  const to = await desk.spot(1, 80 + before.size.width / 2, 240, SLIDE);
  await desk.pen([from, { x: to.x, y: from.y }]);
  await expect
    .poll(async () => Math.round((await box()).size.width))
    .toBe(Math.round(before.size.width / 2));
  const after = await box();
  expect(after.size.height).toBeGreaterThan(1.6 * before.size.height - 8);
  expect(after.transform).toEqual(before.transform);
  await desk.page.keyboard.press('Control+z');
  await expect.poll(async () => (await box()).size).toEqual(before.size);
});

test('what is typed is not lost where somebody else has removed the box meanwhile', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await begin(desk, 80, 230);
  await desk.page.keyboard.type('High water');
  const boxes = async () => (await instance.annotations(deck)) as unknown as Box[];
  await expect.poll(async () => (await boxes()).length).toBe(1);
  const [{ id, pageId }] = (await boxes()) as unknown as { id: string; pageId: string }[];
  await instance.perform(deck, { type: 'annotation.remove', annotationId: id, pageId });
  await expect.poll(async () => (await boxes()).length).toBe(0);
  await expect(desk.page.getByText('Typed text 1')).toHaveCount(0);
  await desk.page.keyboard.type(' at noon');
  await desk.page.keyboard.press('Escape');
  await expect
    .poll(async () => (await boxes()).map(({ paragraphs }) => paragraphs[0].runs[0].text))
    .toEqual(['High water at noon']);
});

test('what is typed before its fonts have come is a box as large as its words once they have', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  const words = 'High water at noon, low water at six';
  let release = (): void => undefined;
  const held = new Promise<void>((resolve) => (release = resolve));
  await page.route('**/fonts/**', async (route) => {
    await held;
    await route.continue();
  });
  await desk.open(instance.url, deck);
  await desk.page.getByLabel('Text, key T').click();
  await desk.pen([await desk.spot(1, 120, 120, SLIDE)]);
  await expect(editor(desk)).toBeFocused();
  await page.keyboard.type(words);
  await page.keyboard.press('Escape');
  const width = async (): Promise<number> => {
    const [box] = (await instance.annotations(deck)) as unknown as Box[];
    return box.size.width;
  };
  await desk.saved();
  const guessed = await width();
  expect(guessed).toBeGreaterThan(50);
  release();
  await expect.poll(width).not.toBe(guessed);
  await desk.drawn();
  // A tap at the end of its words is in the box.
  await desk.pen([await desk.spot(1, 120 + (await width()) - 12, 124, SLIDE)]);
  await expect(editor(desk)).toHaveText(words);
});

test('a paragraph has the tab stops and the direction it is given, and the caret stands where they lead', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await begin(desk, 80, 230);
  await page.keyboard.type('Ebb');
  await page.getByRole('button', { name: 'Paragraph' }).click();
  const stops = page.getByLabel('Tab stops in mm');
  await stops.fill('wide');
  await stops.press('Enter');
  await expect(page.getByText('Lengths in mm from the edge')).toBeVisible();
  await stops.fill('60; 40');
  await stops.press('Enter');
  await expect(stops).toHaveValue('40, 60');
  await page.keyboard.press('Escape');
  await expect(editor(desk)).toBeFocused();
  await page.keyboard.type('\t12.5\tcm');
  await desk.still();
  // Where the browser has the letters behind the tabs: 40 and 60 mm from the box's words, at 72 points an inch.
  const scale = (await desk.spot(1, 1, 0, SLIDE)).x - (await desk.spot(1, 0, 0, SLIDE)).x;
  const places = await editor(desk).evaluate((element) => {
    const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
    const lefts: Record<string, number> = {};
    for (let node = walker.nextNode(); node; node = walker.nextNode())
      for (const [i, letter] of [...node.nodeValue!].entries()) {
        const range = document.createRange();
        range.setStart(node, i);
        range.setEnd(node, i + 1);
        lefts[letter] ??= range.getBoundingClientRect().left;
      }
    return lefts;
  });
  const behind = (letter: string): number => (places[letter] - places['E']) / scale / (72 / 25.4);
  expect(behind('1')).toBeCloseTo(40, 0);
  expect(behind('c')).toBeCloseTo(60, 0);
  await page.getByRole('button', { name: 'Paragraph' }).click();
  await page.getByRole('button', { name: 'From the right' }).click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect
    .poll(async () => ((await instance.annotations(deck)) as unknown as Box[])[0]?.paragraphs)
    .toMatchObject([
      { direction: 'rtl', tabs: [expect.closeTo(113.39, 1), expect.closeTo(170.08, 1)] },
    ]);
});

test('words of a box lead where they are said to, when one reads', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await begin(desk, 80, 230);
  await page.keyboard.type('See the tables');
  await page.keyboard.press('Control+Shift+ArrowLeft');
  await page.getByRole('button', { name: 'Paragraph' }).click();
  const address = page.getByLabel('Leads to');
  await address.fill('javascript:alert(1)');
  await address.press('Enter');
  await expect(page.getByText('Begin it with https://')).toBeVisible();
  await address.fill('tidewater.example/tables');
  await address.press('Enter');
  await page.keyboard.press('Escape');
  await expect(editor(desk)).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.type(', first');
  await page.keyboard.press('Escape');
  await expect
    .poll(async () => {
      const [box] = (await instance.annotations(deck)) as unknown as Box[];
      return box?.paragraphs[0].runs;
    })
    .toEqual([
      { text: 'See the ' },
      { text: 'tables', look: { link: 'https://tidewater.example/tables', underline: true } },
      expect.objectContaining({ text: ', first' }),
    ]);
  const link = page.getByRole('button', { name: 'https://tidewater.example/tables' });
  await expect(link).toHaveCount(0);
  await page.getByRole('radio', { name: 'Read' }).click();
  await expect(link).toBeVisible();
  // Where the words are: behind the first two.
  const from = await desk.spot(1, 80, 230, SLIDE);
  expect((await link.boundingBox())!.x).toBeGreaterThan(from.x + 20);
  await link.click();
  await expect(page.getByRole('dialog')).toContainText('https://tidewater.example/tables');
});
