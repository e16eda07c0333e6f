export { drawingPdf } from './drawing';
export { sheetPdf, type WrittenStamp } from './write-sheet';
export { readSheet, type PageAlone, type ReadSheet } from './read-sheet';
