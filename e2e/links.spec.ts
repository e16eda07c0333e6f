import { expect, test, HANDBOOK, SLIDE } from './support/fixtures';
import type { DeskDriver } from './support/desk';
import type { Instance } from './support/instance';

const field = (desk: DeskDriver) => desk.page.getByLabel('Page, by label or number');
const read = (desk: DeskDriver) => desk.page.getByRole('radio', { name: 'Read' }).click();
const write = (desk: DeskDriver) => desk.page.getByRole('radio', { name: 'Write' }).click();
const links = async (instance: Instance, id: string) =>
  (await instance.annotations(id)).filter(({ kind }) => kind === 'link');

/** Writes a line and makes it lead somewhere: a page, or an address. */
async function makeLink(desk: DeskDriver, kind: 'Page' | 'Address', words: string): Promise<void> {
  const { page } = desk;
  await desk.pen([await desk.spot(1, 400, 100, SLIDE), await desk.spot(1, 560, 110, SLIDE)]);
  await desk.saved();
  await page.keyboard.press('Control+a');
  await page.getByLabel('More for the selection').click();
  await page.getByRole('menuitem', { name: 'Make a link' }).click();
  await page.getByRole('radio', { name: kind, exact: true }).click();
  await page.getByRole('dialog').getByRole('textbox', { name: kind }).fill(words);
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await desk.saved();
  await page.keyboard.press('Escape');
}

test('a link made of ink leads on in Read, and never in Write, whatever touches it', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await makeLink(desk, 'Page', '5');
  expect(await links(instance, deck)).toHaveLength(1);
  const at = await desk.spot(1, 480, 105, SLIDE);
  const { page } = desk;
  await expect(page.locator('.link-mark')).toHaveCount(1);
  await page.keyboard.press('1');
  await desk.pen([at, { x: at.x + 20, y: at.y + 2 }]);
  await page.mouse.click(at.x, at.y);
  await desk.fingers('touchStart', [at]);
  await desk.fingers('touchEnd', []);
  await desk.saved();
  await expect(field(desk)).toHaveValue('1');
  await read(desk);
  await expect(page.locator('.link-mark')).toHaveCount(0);
  await page.mouse.move(at.x, at.y);
  await expect(page.getByRole('button', { name: 'To page 5' })).toBeVisible();
  await page.getByRole('button', { name: 'To page 5' }).click();
  await expect(field(desk)).toHaveValue('5');
  await page.getByLabel('Back', { exact: true }).click();
  await expect(field(desk)).toHaveValue('1');
});

test('an external link shows its whole address and asks', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  const { page } = desk;
  await makeLink(desk, 'Address', 'https://tidewater.example/tables?station=b');
  await read(desk);
  await page.getByRole('button', { name: 'https://tidewater.example/tables?station=b' }).click();
  await expect(page.getByRole('dialog')).toContainText(
    'https://tidewater.example/tables?station=b',
  );
});

test('an address that cannot be opened safely is refused, with what to write', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { page } = desk;
  await desk.pen([await desk.spot(1, 400, 100, SLIDE), await desk.spot(1, 560, 110, SLIDE)]);
  await page.keyboard.press('Control+a');
  await page.getByLabel('More for the selection').click();
  await page.getByRole('menuitem', { name: 'Make a link' }).click();
  await page.getByRole('radio', { name: 'Address' }).click();
  await page.getByRole('textbox', { name: 'Address' }).fill('javascript:alert(1)');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('beginning with https://');
  await page.getByRole('button', { name: 'Cancel' }).click();
  expect(await links(instance, deck)).toEqual([]);
});

test('a link is selected only when links are wanted; then it is led elsewhere and removed', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { page } = desk;
  await makeLink(desk, 'Page', '5');
  const at = await desk.spot(1, 480, 107, SLIDE);
  const bar = page.getByRole('toolbar', { name: 'Selection' });
  await page.keyboard.press('l');
  const ring = [
    await desk.spot(1, 370, 80, SLIDE),
    await desk.spot(1, 600, 80, SLIDE),
    await desk.spot(1, 600, 140, SLIDE),
    await desk.spot(1, 370, 140, SLIDE),
    await desk.spot(1, 370, 80, SLIDE),
  ];
  await desk.pen(ring);
  await expect(bar).toContainText('ink 1');
  await expect(bar).not.toContainText('links');
  await page.keyboard.press('Escape');
  await page.keyboard.press('l');
  await page.getByLabel('Lasso, key L').click();
  await page.getByRole('checkbox', { name: 'Ink', exact: true }).uncheck();
  await page.getByRole('checkbox', { name: 'Links', exact: true }).check();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await desk.pen([at]);
  await expect(bar).toContainText('links 1');
  await page.getByLabel('More for the selection').click();
  await page.getByRole('menuitem', { name: 'Where it leads' }).click();
  await page.getByRole('dialog').getByRole('textbox', { name: 'Page' }).fill('9');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await desk.saved();
  await page.keyboard.press('Delete');
  await desk.saved();
  expect(await links(instance, deck)).toEqual([]);
  await page.keyboard.press('Control+z');
  await desk.saved();
  await read(desk);
  await page.getByRole('button', { name: 'To page 9' }).click();
  await expect(field(desk)).toHaveValue('9');
  await write(desk);
});

// pdf.js is what shows the imported file: its links are read by it.
test('a link that was exported is followed by pdf.js', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  await makeLink(desk, 'Page', '7');
  const reply = await fetch(`${instance.url}/api/documents/${deck}/export?annotations=none`);
  const bytes = Buffer.from(await reply.arrayBuffer());
  // Without the entries by which Stylet knows its own it is a link like any other.
  const plain = Buffer.from(
    bytes.toString('latin1').replaceAll('/StyletAnnotation', '/OtherAnnotations'),
    'latin1',
  );
  const again = await instance.bringIn(new Uint8Array(plain), 'Plain.pdf');
  expect(await links(instance, again)).toEqual([]);
  await desk.open(instance.url, again);
  await read(desk);
  await desk.page.getByRole('button', { name: 'To page 7' }).click();
  await expect(field(desk)).toHaveValue('7');
});

test('selected words lead to a page', async ({ desk, handbook, instance }) => {
  await desk.open(instance.url, handbook);
  await desk.goTo('9');
  const { page } = desk;
  await read(desk);
  await desk.still();
  const reply = await fetch(`${instance.url}/api/documents/${handbook}`);
  const { pages } = (await reply.json()) as { pages: { label: string }[] };
  const number = pages.findIndex(({ label }) => label === '9') + 1;
  const from = await desk.spot(number, 90, 150, HANDBOOK);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + 140, from.y, { steps: 5 });
  await page.mouse.up();
  await page.getByLabel('Make a link').click();
  await page.getByRole('dialog').getByRole('textbox', { name: 'Page' }).fill('31');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await desk.saved();
  const [link] = await links(instance, handbook);
  expect(String(link['contents']).length).toBeGreaterThan(3);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'To page 31' }).first().click();
  await expect(field(desk)).toHaveValue('31');
});

const card = (desk: DeskDriver) => desk.page.getByRole('dialog', { name: 'Where the link leads' });
const exported = async (instance: Instance, id: string, mode: string): Promise<Uint8Array> => {
  const reply = await fetch(`${instance.url}/api/documents/${id}/export?annotations=${mode}`);
  return new Uint8Array(await reply.arrayBuffer());
};

test('a link shows where it leads, with a picture of the page, and lets go', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.goTo('2');
  await read(desk);
  const { page } = desk;
  await page.getByRole('button', { name: 'To page 24' }).hover();
  await expect(card(desk)).toContainText('To page 24');
  await expect
    .poll(() =>
      card(desk)
        .locator('canvas')
        .evaluate((canvas: HTMLCanvasElement) => {
          const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
          return data.some((value, i) => i % 4 === 0 && value < 100 && data[i + 3] === 255);
        }),
    )
    .toBe(true);
  await page.mouse.move(5, 400);
  await expect(card(desk)).toHaveCount(0);
  await page.getByRole('button', { name: 'To page 24' }).hover();
  await card(desk).getByRole('button', { name: 'Go there' }).click();
  await expect(field(desk)).toHaveValue('24');
});

test('a finger that rests on a link shows where it leads and follows nothing', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.goTo('2');
  await read(desk);
  const box = (await desk.page.getByRole('button', { name: 'To page 24' }).boundingBox())!;
  const at = { x: box.x + 30, y: box.y + 10 };
  await desk.fingers('touchStart', [at]);
  await desk.pause(700);
  await desk.fingers('touchEnd', []);
  await expect(card(desk)).toContainText('To page 24');
  await expect(field(desk)).toHaveValue('2');
  await desk.page.keyboard.press('Escape');
  await expect(card(desk)).toHaveCount(0);
});

test('links of the file are led elsewhere and removed, for good with the export', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.goTo('2');
  await read(desk);
  const { page } = desk;
  await expect(page.locator('.link')).toHaveCount(6);
  await page.getByRole('button', { name: 'To page 24' }).click({ button: 'right' });
  await card(desk).getByRole('button', { name: 'Change' }).click();
  await page.getByRole('dialog').getByRole('textbox', { name: 'Page' }).fill('30');
  await page.getByRole('button', { name: 'Place on the page' }).click();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await desk.saved();
  await expect(page.getByRole('button', { name: 'To page 30' })).toHaveCount(1);
  await expect(page.locator('.link')).toHaveCount(6);
  await page.getByRole('button', { name: 'To page 35' }).click({ button: 'right' });
  await card(desk).getByRole('button', { name: 'Remove' }).click();
  await desk.saved();
  await expect(page.locator('.link')).toHaveCount(5);
  await page.keyboard.press('Control+z');
  await desk.saved();
  await expect(page.locator('.link')).toHaveCount(6);
  await page.keyboard.press('Control+Shift+z');
  await desk.saved();
  await expect(page.locator('.link')).toHaveCount(5);
  await page.reload();
  await desk.drawn();
  await read(desk);
  await expect(page.locator('.link')).toHaveCount(5);

  const again = await instance.bringIn(await exported(instance, deck, 'editable'), 'Again.pdf');
  await desk.open(instance.url, again);
  await desk.goTo('2');
  await read(desk);
  await expect(page.locator('.link')).toHaveCount(5);
  await expect(page.getByRole('button', { name: 'To page 35' })).toHaveCount(0);
  await page.getByRole('button', { name: 'To page 30' }).click();
  await expect(field(desk)).toHaveValue('30');
  // One that came back is taken away again, and no other takes its place.
  await page.getByLabel('Back', { exact: true }).click();
  await page.getByRole('button', { name: 'To page 30' }).click({ button: 'right' });
  await card(desk).getByRole('button', { name: 'Remove' }).click();
  await expect(page.locator('.link')).toHaveCount(4);
});

test('an area of a page, whatever is there, leads to an address', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { page } = desk;
  await page.keyboard.press('s');
  await desk.pen([
    await desk.spot(1, 400, 200, SLIDE),
    await desk.spot(1, 500, 240, SLIDE),
    await desk.spot(1, 600, 280, SLIDE),
  ]);
  await page.getByLabel('Make a link of this area').click();
  await page.getByRole('radio', { name: 'Address' }).click();
  await page.getByRole('textbox', { name: 'Address' }).fill('https://tidewater.example/tables');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await desk.saved();
  const [made] = await links(instance, deck);
  const [x0, y0, , , , , x1, y1] = (made as { quads?: number[][] }).quads![0];
  expect([x0, y0, x1, y1].map(Math.round)).toEqual([400, 200, 600, 280]);
  await read(desk);
  const at = await desk.spot(1, 500, 240, SLIDE);
  await page.mouse.click(at.x, at.y);
  await expect(page.getByRole('dialog', { name: 'Open this address?' })).toContainText('tables');
});
