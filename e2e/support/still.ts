import type { Locator } from '@playwright/test';

/** How long nothing must have changed, in ms. */
const REST = 200;

/** Waits until nothing in a document moves or changes any more, however long that takes. */
export async function still(root: Locator): Promise<void> {
  await root.evaluate(
    (_, rest) =>
      new Promise<void>((resolve) => {
        let changes = 0;
        let timer: ReturnType<typeof setTimeout> | undefined;
        const again = (): void => {
          changes++;
          clearTimeout(timer);
          timer = setTimeout(() => look(changes), rest);
        };
        const isMoving = (): boolean =>
          document
            .getAnimations()
            .some(
              (one) =>
                one.playState === 'running' &&
                isFinite(Number(one.effect?.getComputedTiming().endTime)),
            );
        const done = (): void => {
          observer.disconnect();
          document.removeEventListener('scroll', again, true);
          resolve();
        };
        // What a long task has held up may still come with the next frames.
        const look = (seen: number): void => {
          requestAnimationFrame(() =>
            requestAnimationFrame(() => {
              if (seen !== changes) return;
              if (isMoving()) again();
              else done();
            }),
          );
        };
        const observer = new MutationObserver(again);
        observer.observe(document, {
          attributes: true,
          characterData: true,
          childList: true,
          subtree: true,
        });
        document.addEventListener('scroll', again, true);
        again();
      }),
    REST,
  );
}
