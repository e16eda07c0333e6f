import { expect, test, SLIDE } from './support/fixtures';

test('what is typed between dollars is the formula that it writes; a pane writes others, and changes them', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await page.getByLabel('Text, key T').click();
  await desk.pen([await desk.spot(1, 80, 230, SLIDE), await desk.spot(1, 80, 230, SLIDE)]);
  const editor = page.getByRole('textbox', { name: 'Typed text' });
  await expect(editor).toBeFocused();
  const formula = editor.getByRole('math');
  // The first dollar has what sets formulas brought.
  const comes = page.waitForResponse((reply) => /\.js$/.test(reply.url()));
  await page.keyboard.type('It costs $5, and $');
  await comes;
  await expect
    .poll(async () => {
      await page.keyboard.type('h=x^2$');
      if ((await formula.count()) > 0) return true;
      for (let i = 0; i < 7; i++) await page.keyboard.press('Backspace');
      await page.keyboard.type('$');
      return false;
    })
    .toBe(true);
  await expect(editor).toContainText('It costs $5, and');
  await page.keyboard.press('Control+z');
  await expect(formula).toHaveCount(0);
  await expect(editor).toContainText('and $h=x^2$');
  await page.keyboard.press('Control+y');
  await expect(formula).toHaveCount(1);
  await page.keyboard.type(' deep');
  // The room that the browser keeps free is that of the formula: in Computer Modern at 12 points, see the core's test.
  const scale = (await desk.spot(1, 1, 0, SLIDE)).x - (await desk.spot(1, 0, 0, SLIDE)).x;
  const wide = (await formula.boundingBox())!.width / scale / 12;
  expect(wide).toBeGreaterThan(2.3);
  expect(wide).toBeLessThan(3.1);

  const open = page.getByRole('button', { name: 'Formula', exact: true });
  const notation = page.getByLabel('Formula in TeX notation');
  await open.click();
  await expect(notation).toBeFocused();
  await notation.fill('\\frac{1');
  await expect(page.getByText('Missing close brace.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Put it in' })).toBeDisabled();
  await notation.fill('');
  await page.getByRole('button', { name: 'Fraction' }).click();
  await page.keyboard.type('1');
  await expect(notation).toHaveValue('\\frac{1}{b}');
  await page.getByRole('button', { name: 'Put it in' }).click();
  await expect(editor).toBeFocused();
  await expect(formula).toHaveCount(2);
  await open.click();
  await expect(notation).toHaveValue('\\frac{1}{b}');
  await notation.fill('\\sqrt{2}');
  await page.keyboard.press('Control+Enter');
  await expect(editor).toBeFocused();
  // Copied as it is written; what a page shows by MathML is pasted as what it is.
  await page.evaluate(() =>
    document.addEventListener('copy', ({ clipboardData }) => {
      document.title = clipboardData!.getData('text/plain');
    }),
  );
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+c');
  await expect.poll(() => page.title()).toBe('It costs $5, and $h=x^2$ deep$\\sqrt{2}$');
  await page.keyboard.press('End');
  await editor.evaluate((element) => {
    const clipboardData = new DataTransfer();
    const notation = '<annotation encoding="application/x-tex">k</annotation>';
    const math = `<math><semantics><mi>k</mi>${notation}</semantics></math>`;
    clipboardData.setData('text/html', `<p>, by ${math}</p>`);
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true }));
  });
  await expect(formula).toHaveCount(3);
  await page.keyboard.press('Escape');
  const words = () =>
    instance.annotations(deck).then(([box]) => {
      const [{ runs }] = box['paragraphs'] as { runs: { text: string; look?: object }[] }[];
      return runs.map(({ text, look }) => look ?? text);
    });
  await expect
    .poll(words)
    .toEqual([
      ...['It costs $5, and ', { formula: 'h=x^2' }, ' deep', { formula: '\\sqrt{2}' }],
      ...[', by ', { formula: 'k' }],
    ]);
  // It is found by its notation, as all that was typed is.
  await page.keyboard.press('Control+f');
  await page.getByLabel('Find in this document').fill('sqrt');
  await expect(page.getByText('of 1', { exact: false }).first()).toBeVisible();
  await expect(page.locator('stylet-find-bar mark')).toHaveText('sqrt');
});
