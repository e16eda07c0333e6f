/**
 * Every error a person or a client can meet: the stable code, the HTTP status of the answer that
 * carries it (RFC 9457, problem details), what went wrong, and what to do about it.
 */
export const problems = {
  'request-invalid': {
    status: 400,
    title: 'The request is not understood',
    advice: 'Compare it with /api/openapi.json; the detail names the field.',
  },
  'operation-invalid': {
    status: 400,
    title: 'An operation does not fit this document',
    advice: 'Reload the document and try again.',
  },
  'page-unknown': {
    status: 400,
    title: 'This page is not in its file',
    advice: 'Undo it, and put the page in again.',
  },
  'too-many-open': {
    status: 429,
    title: 'Too many documents are open in one window',
    advice: 'Close some of them.',
  },
  'companion-invalid': {
    status: 400,
    title: 'This cannot be kept beside the document',
    advice: 'Choose another document, or make a notebook.',
  },
  'ink-samples-invalid': {
    status: 400,
    title: 'The ink cannot be read',
    advice: 'Send the samples as this version of Stylet writes them.',
  },
  'file-missing': {
    status: 400,
    title: 'No file came with the request',
    advice: 'Send one PDF in the multipart field “file”.',
  },
  'text-unreadable': {
    status: 422,
    title: 'This is no text that can be read',
    advice: 'Save it as plain text in UTF-8, or as a PDF, and bring that in.',
  },
  'text-not-found': {
    status: 404,
    title: 'This document has no typed pages',
    advice: 'Type in a box on its pages instead.',
  },
  'text-changed': {
    status: 409,
    title: 'Somebody else has gone on with this text',
    advice: 'Read it again, and put what you have changed into that.',
  },
  'text-too-long': {
    status: 413,
    title: 'The text is too long for one document',
    advice: 'Divide it, and bring the parts in one by one.',
  },
  'find-without-words': {
    status: 400,
    title: 'There is nothing to look for',
    advice: 'Type a word with at least one letter or digit.',
  },
  'lookup-without-word': {
    status: 400,
    title: 'There is no word to look up',
    advice: 'Select a word with at least one letter or digit.',
  },
  'dictionary-unreadable': {
    status: 422,
    title: 'This is no dictionary that can be read',
    advice:
      'Add a text file with a word, a tab and its meaning on each line, or the .index and the .dict file of one dictionary.',
  },
  'dictionary-too-large': {
    status: 413,
    title: 'The dictionary is too large',
    advice: 'Divide it, and add the parts one by one.',
  },
  'dictionary-not-found': {
    status: 404,
    title: 'This dictionary does not exist',
    advice: 'Load the list of dictionaries again.',
  },
  'voice-not-found': {
    status: 404,
    title: 'This voice does not exist',
    advice: 'Choose another voice.',
  },
  'search-not-found': {
    status: 404,
    title: 'This saved search does not exist',
    advice: 'Load the list of saved searches again.',
  },
  'document-not-in-trash': {
    status: 409,
    title: 'This document is not in the trash',
    advice: 'Put it into the trash first.',
  },
  'document-exists': {
    status: 409,
    title: 'There is another document with this id',
    advice: 'Bring it in without an id, or with a new one.',
  },
  'document-not-found': {
    status: 404,
    title: 'This document does not exist',
    advice: 'Go back to the library and open it from there.',
  },
  'not-found': {
    status: 404,
    title: 'There is nothing at this address',
    advice: 'See /api/openapi.json for what there is.',
  },
  'range-not-satisfiable': {
    status: 416,
    title: 'The file is shorter than the range asked for',
    advice: 'Ask for a range inside the file.',
  },
  'file-empty': {
    status: 422,
    title: 'This file is empty',
    advice: 'Download or export it again, then bring it in.',
  },
  'file-not-pdf': {
    status: 422,
    title: 'This is not a PDF',
    advice: 'Save or print it as a PDF in the program it comes from, then bring that in.',
  },
  'pdf-password-protected': {
    status: 422,
    title: 'This PDF is locked with a password',
    advice: 'Give the password, and it comes in.',
  },
  'pdf-password-wrong': {
    status: 422,
    title: 'This is not its password',
    advice: 'Mind capitals, and try again; the owner’s password is good as well.',
  },
  'pdf-too-much': {
    status: 422,
    title: 'This PDF has more in it than can be worked on',
    advice: 'Split it, and bring in the parts.',
  },
  'pdf-part-damaged': {
    status: 422,
    title: 'Part of this PDF is damaged',
    advice: 'Ask for the file again, or bring it in once more: it may be mended then.',
  },
  'pdf-damaged': {
    status: 422,
    title: 'This PDF is damaged beyond repair',
    advice: 'Ask for it again, or download it again; part of the file is missing.',
  },
  'pdf-without-pages': {
    status: 422,
    title: 'This PDF has no pages',
    advice: 'Check that it is the file you meant.',
  },
  'attachment-not-found': {
    status: 404,
    title: 'There is no such file inside this document',
    advice: 'Load the list of its files again.',
  },
  'signature-breaks': {
    status: 409,
    title: 'This export breaks a signature',
    advice: 'Confirm that it may, or hand over the file as it came.',
  },
  'file-too-large': {
    status: 413,
    title: 'This file is larger than this server takes',
    advice: 'Split it, or ask who runs the server to raise STYLET_MAX_FILE_MB.',
  },
  'picture-unreadable': {
    status: 422,
    title: 'This is no picture that can be read',
    advice: 'Save it as PNG, JPEG, WebP or SVG in the program it comes from, then put that in.',
  },
  'picture-too-large': {
    status: 413,
    title: 'This picture is larger than this server takes',
    advice: 'Make it smaller, or ask who runs the server to raise STYLET_MAX_PICTURE_MB.',
  },
  'picture-too-many-pixels': {
    status: 422,
    title: 'This picture has more pixels than can be shown',
    advice: 'Make it smaller in the program it comes from, then put it in.',
  },
  'drawing-empty': {
    status: 422,
    title: 'There is nothing here that could be seen as a stamp',
    advice: 'Select what is drawn, typed or put in as a picture.',
  },
  'stamp-sheet-not-found': {
    status: 404,
    title: 'This sheet of stamps is not here',
    advice: 'Open the stamps again; it may have been taken away.',
  },
  'sheet-too-large': {
    status: 413,
    title: 'This PDF is larger than a sheet of stamps can be',
    advice: 'Take the pages that are meant as stamps into a PDF of their own.',
  },
  'stamp-not-found': {
    status: 404,
    title: 'This stamp is not here',
    advice: 'Open the stamps again; it may have been taken away.',
  },
  'stamps-too-many': {
    status: 409,
    title: 'There is no room for more stamps',
    advice: 'Remove stamps or sheets that are not used any more.',
  },
  'folder-not-found': {
    status: 404,
    title: 'This folder does not exist',
    advice: 'Load the library again; it may have been taken away.',
  },
  'folder-inside-itself': {
    status: 400,
    title: 'A folder cannot lie in itself',
    advice: 'Choose a folder that does not lie in this one.',
  },
  'source-not-found': {
    status: 404,
    title: 'This file is not here',
    advice: 'Put its pages in again from the file.',
  },
  'picture-not-found': {
    status: 404,
    title: 'This picture is not here',
    advice: 'Put it in again from its file.',
  },
  'picture-unknown': {
    status: 409,
    title: 'A picture has not reached the server',
    advice: 'Undo it, and put the picture in again from its file.',
  },
  'snip-outside': {
    status: 422,
    title: 'There is nothing of the page in this snip',
    advice: 'Draw it over part of a page.',
  },
  'find-too-much': {
    status: 400,
    title: 'This is too much to look for at once',
    advice: 'Look for fewer words.',
  },
  'host-unknown': {
    status: 403,
    title: 'This server does not answer to that name',
    advice: 'Use the address it gives when it starts, or have STYLET_HOSTS name this one.',
  },
  'origin-foreign': {
    status: 403,
    title: 'Another site asks for this',
    advice: 'Open Stylet itself and do it there.',
  },
  'nobody-waits': {
    status: 499,
    title: 'Nobody waits for this any more',
    advice: 'Ask again.',
  },
  'work-too-long': {
    status: 422,
    title: 'This takes longer than it may',
    advice: 'Try a part of it. Nothing is wrong with what else there is.',
  },
  'work-too-large': {
    status: 422,
    title: 'This takes more memory than there is for it',
    advice: 'Try a part of it. Nothing is wrong with what else there is.',
  },
  'disk-full': {
    status: 507,
    title: 'The server has too little room left',
    advice: 'Tell who runs the server; what is kept already is safe.',
  },
  'tool-failed': {
    status: 500,
    title: 'A helper program on the server failed',
    advice: 'Try again; if it fails again, tell who runs the server.',
  },
  'database-unavailable': {
    status: 503,
    title: 'The database does not answer',
    advice: 'Your changes are kept here and sent again by themselves.',
  },
  internal: {
    status: 500,
    title: 'Something went wrong on the server',
    advice: 'Try again; if it fails again, tell who runs the server.',
  },
} as const satisfies Record<string, { status: number; title: string; advice: string }>;

export type ProblemCode = keyof typeof problems;

/** An error with one of the codes above; `detail` says what is particular to this case. */
export class Problem extends Error {
  constructor(
    readonly code: ProblemCode,
    readonly detail: string,
  ) {
    super(`${problems[code].title}: ${detail}`);
    this.name = 'Problem';
  }

  get status(): number {
    return problems[this.code].status;
  }
}
