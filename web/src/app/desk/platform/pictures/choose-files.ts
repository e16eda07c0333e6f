/** The kinds of files that can be put on pages. */
export const PICTURE_FILES =
  '.png,.jpg,.jpeg,.webp,.svg,image/png,image/jpeg,image/webp,image/svg+xml';

/** The kinds of files whose pages can be put into documents. */
export const PAGE_FILES = `.pdf,application/pdf,${PICTURE_FILES}`;

/** Lets the person choose from their files; none when they think better of it. */
export function chooseFiles(accept: string): Promise<File[]> {
  return new Promise((resolve) => {
    const input = document.createElement('input');
    input.type = 'file';
    input.multiple = true;
    input.accept = accept;
    input.onchange = () => resolve([...(input.files ?? [])]);
    input.oncancel = () => resolve([]);
    input.click();
  });
}
