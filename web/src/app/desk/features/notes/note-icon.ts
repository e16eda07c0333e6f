/** A note as its mark on the page has it: a lozenge with lines of writing. */
export const noteIcon =
  '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24">' +
  '<path fill-rule="evenodd" d="M12 1 23 12 12 23 1 12ZM12 4 4 12l8 8 8-8Z"/>' +
  '<path d="M7.5 9.2h9v1.8h-9ZM7.5 13h6v1.8h-6Z"/></svg>';
