const svg = (path: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24">${path}</svg>`;

/** A drawing with the edge of a sheet that it was torn off. */
export const stampIcon = svg(
  '<path fill-rule="evenodd" d="M3 3h2.5a1.5 1.5 0 0 0 3 0h2a1.5 1.5 0 0 0 3 0h2a1.5 1.5 0 0 0 3 0H21v18h-2.5a1.5 1.5 0 0 0-3 0h-2' +
    'a1.5 1.5 0 0 0-3 0h-2a1.5 1.5 0 0 0-3 0H3ZM5 5.6v12.8a3.4 3.4 0 0 1 4.3.2 3.4 3.4 0 0 1 5.4 0 3.4 3.4 0 0 1 4.3-.2V5.6a3.4 3.4 0 0 1-4.3-.2 ' +
    '3.4 3.4 0 0 1-5.4 0A3.4 3.4 0 0 1 5 5.6Z"/>' +
    '<path d="M7 14.2c1.6-4.6 3-5.6 4.3-5.6 1.5 0 1.7 1.3 1.9 2.6.2 1 .4 1.7 1 1.7.5 0 1.1-.6 1.7-2.2l1.7.6c-.9 2.3-2 3.4-3.4 3.4-2 0-2.4-1.7-2.7-3.1-.1-.8-.2-1.2-.3-1.2-.3 0-1.2.9-2.5 4.4Z"/>',
);

/** A drawing that is put onto a sheet. */
export const keepStampIcon = svg(
  '<path d="M12 2 17 7 12 12 7 7ZM12 4.8 9.8 7 12 9.2 14.2 7Z" fill-rule="evenodd"/>' +
    '<path d="M3 14h5l-1.5 2H5v4h14v-4h-1.5L16 14h5v8H3ZM11 13h2v2.6l1.2-1.2 1.3 1.3L12 19.2l-3.5-3.5 1.3-1.3 1.2 1.2Z"/>',
);

/** Drawings in a row of which one is lifted. */
export const stampArrange = svg(
  '<path d="M3 14h5v5H3Zm13 0h5v5h-5ZM9.5 14h5v5h-5ZM12 2l4 4.5h-2.8V12h-2.4V6.5H8Z"/>',
);
