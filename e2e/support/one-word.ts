import { SLIDE } from './fixtures';
import type { DeskDriver, Spot } from './desk';

/** Opens the deck in Read and selects a word of slide 16: the first of “wavelength, the wave feels the bed”. */
export async function selectWavelength(desk: DeskDriver, url: string, deck: string): Promise<Spot> {
  await desk.read(url, deck, '16');
  const spot = await desk.spot(16, 120, 161, SLIDE);
  await desk.page.mouse.dblclick(spot.x, spot.y);
  return spot;
}
