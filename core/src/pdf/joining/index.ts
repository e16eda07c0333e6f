export { joinPages, type JoinedPages } from './join-pages';
export type { SourceFile } from './source-file';
export { alone, pagesIn } from './pages-in';
