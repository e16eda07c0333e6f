import { expect } from '@playwright/test';
import sharp from 'sharp';
import type { DeskDriver, Spot } from './desk';
import type { Instance } from './instance';

/** A picture annotation as the server tells it. */
export interface Put {
  readonly id: string;
  readonly kind: string;
  readonly digest: string;
  readonly medium: string;
  readonly transform: readonly [number, number, number, number, number, number];
  readonly crop?: readonly { x: number; y: number }[];
  readonly source?: Record<string, unknown>;
  readonly opacity: number;
  readonly pageId: string;
}

export const pictures = async (instance: Instance, id: string): Promise<Put[]> =>
  ((await instance.annotations(id)) as unknown as Put[]).filter(({ kind }) => kind === 'picture');

/** The colours of the quarters of `quarters`, from the top left on as one reads. */
export const QUARTERS = [
  [179, 50, 75],
  [31, 111, 102],
  [183, 116, 18],
  [47, 79, 181],
] as const;

/** A picture of four coloured quarters. */
export function quarters(width: number, height: number): sharp.Sharp {
  const bytes = Buffer.alloc(width * height * 3);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      bytes.set(QUARTERS[(y < height / 2 ? 0 : 2) + (x < width / 2 ? 0 : 1)], 3 * (y * width + x));
  return sharp(bytes, { raw: { width, height, channels: 3 } });
}

export const file = (name: string, mimeType: string, buffer: Buffer) => ({
  name,
  mimeType,
  buffer,
});

/** Takes pictures from files and puts them down at a spot. */
export async function putDown(
  desk: DeskDriver,
  files: ReturnType<typeof file>[],
  at: Spot,
): Promise<void> {
  const { page } = desk;
  await page.getByLabel('Picture, key I').click();
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'From a file' }).click();
  await (await chooser).setFiles(files);
  await expect(page.getByText('Tap where the picture is to go')).toBeVisible();
  await desk.pen([at]);
  await expect(page.getByRole('toolbar', { name: 'Selection' })).toContainText('pictures');
}

/** Where a point of a picture (shares of its width and height) is on the screen. */
export async function spotIn(
  desk: DeskDriver,
  page: number,
  { transform: [a, b, c, d, e, f] }: Put,
  [x, y]: readonly [number, number],
  widthInPoints: number,
): Promise<Spot> {
  return desk.spot(page, a * x + c * y + e, b * x + d * y + f, widthInPoints);
}
