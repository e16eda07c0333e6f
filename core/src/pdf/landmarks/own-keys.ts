/** Entries of outline items by which Stylet knows its bookmarks: on their group, and on each. */
export const BOOKMARKS = 'StyletBookmarks';
export const BOOKMARK = 'StyletBookmark';
/** The name under which Stylet keeps data of its own with pages (ISO 32000-1, 14.5). */
export const PIECE = 'Stylet';
