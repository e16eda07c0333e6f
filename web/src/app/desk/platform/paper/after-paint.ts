/** How long to wait where nothing is painted, in ms: frames do not come in a tab at the back. */
const LATEST = 100;

/** Does something once what was changed just now is on the screen. */
export function afterPaint(then: () => void): void {
  let isDone = false;
  const once = (): void => {
    if (isDone) return;
    isDone = true;
    clearTimeout(latest);
    then();
  };
  const latest = setTimeout(once, LATEST);
  // A frame's callbacks run before it is painted, the next task after that.
  requestAnimationFrame(() => setTimeout(once));
}
