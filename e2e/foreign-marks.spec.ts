import { smallPdf } from '../core/src/pdf/testing/small-file';
import { expect, test, SLIDE } from './support/fixtures';

test('a mark of another program is made one’s own, moved and recoloured; undo gives it back', async ({
  desk,
  instance,
}) => {
  const id = await instance.bringIn(
    smallPdf([
      '<< /Type /Catalog /Pages 2 0 R >>',
      '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
      '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 720 405] /Annots [4 0 R] >>',
      '<< /Type /Annot /Subtype /Square /Rect [300 200 400 260] /C [1 0 0] /BS << /W 3 >> /Contents (Why?) >>',
    ]),
    'Marked.pdf',
  );
  const { page } = desk;
  await desk.open(instance.url, id);
  const kinds = async () => (await instance.annotations(id)).map(({ kind }) => kind);
  await page.keyboard.press('l');
  const corner = (x: number, y: number) => desk.spot(1, x, y, SLIDE);
  const [a, b, c, d] = [
    await corner(280, 130),
    await corner(420, 130),
    await corner(420, 220),
    await corner(280, 220),
  ];
  await desk.pen([a, b, c, d, a]);
  await page.getByLabel('More for the selection').click();
  await page.getByRole('menuitem', { name: 'Make it mine' }).click();
  await desk.saved();
  expect(await kinds()).toEqual(['shape']);
  // It is seen where it was, and where it goes.
  await expect.poll(async () => desk.darkestNear(await corner(350, 145.5))).toBeLessThan(120);
  await page.keyboard.press('Shift+ArrowDown');
  await desk.saved();
  const [moved] = await instance.annotations(id);
  expect((moved['points'] as { y: number }[])[0].y).toBeGreaterThan(150);
  for (let i = 0; i < 2; i++) await page.keyboard.press('Control+z');
  await desk.saved();
  expect(await kinds()).toEqual(['foreign']);
});
