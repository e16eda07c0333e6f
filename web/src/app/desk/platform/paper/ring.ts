/** What a ring at the pointer shows. Sizes in CSS pixels, places in client coordinates. */
export type RingLook =
  | { readonly kind: 'eraser'; readonly size: number }
  | { readonly kind: 'color'; readonly color: string };

/** The eraser's ring is never too small to be seen. */
const LEAST = 4;
const COLOR_SIZE = 30;

/** Shows a ring on an element that fills `rect`, or hides it. */
export function showRing(
  ring: HTMLElement,
  look: RingLook | undefined,
  { x, y }: { x: number; y: number },
  rect: DOMRect,
): void {
  ring.classList.toggle('shown', look !== undefined);
  if (!look) return;
  const size = look.kind === 'color' ? COLOR_SIZE : Math.max(LEAST, look.size);
  // A colour is seen beside the point it is taken from.
  const [left, top] = look.kind === 'color' ? [8, -8 - size] : [-size / 2, -size / 2];
  ring.style.background = look.kind === 'color' ? look.color : '';
  ring.style.width = ring.style.height = `${size}px`;
  ring.style.transform = `translate(${x - rect.left + left}px, ${y - rect.top + top}px)`;
}
