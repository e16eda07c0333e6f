import { pageView, transformBox, type Box } from '@stylet/core/geometry';
import type { Line } from '@stylet/core/text';
import type { ViewState } from '../view/view-state';

/** The first line of a page, in the order of reading, whose top is in view or below; -1 where there is none. */
export function firstLineInView(
  view: ViewState,
  pageIndex: number,
  lines: readonly Line[],
): number {
  const { top, height } = view.layout().pages[pageIndex];
  const page = view.pages()[pageIndex];
  const points = page.rotation % 180 === 0 ? page.height : page.width;
  const from = ((view.part().top - top) / height) * points;
  return lines.findIndex(({ box }) => shownBox(view, pageIndex, box).y0 >= from);
}

/** Scrolls as little as it takes for part of a page (page space) to be in view. */
export function revealBox(view: ViewState, pageIndex: number, box: Box): void {
  const { y0, y1 } = shownBox(view, pageIndex, box);
  view.reveal(pageIndex, y0, y1);
}

function shownBox(view: ViewState, pageIndex: number, box: Box): Box {
  const { width, height, rotation } = view.pages()[pageIndex];
  return transformBox(pageView(width, height, rotation, 1), box);
}
