import type { Page } from '@stylet/core/api';
import type { Annotation, Link, PageAnnotations } from '@stylet/core/document';
import { linkAreas } from '@stylet/core/document';
import { polygonBounds } from '@stylet/core/ink';
import type { PageLink } from '../../../workers/protocol';

const isLink = (annotation: Annotation): annotation is Link => annotation.kind === 'link';

/** The links that were made on a page. */
export const linksOn = (page: PageAnnotations): Link[] => Object.values(page).filter(isLink);

/** Links as they are followed, one for each area; those to pages that are gone lead nowhere. */
export function followable(links: readonly Link[], pages: readonly Page[]): PageLink[] {
  return links.flatMap((link) => {
    const target = targetOf(link, pages);
    return target ? linkAreas(link).map((area) => ({ box: polygonBounds([area])!, target })) : [];
  });
}

function targetOf({ target }: Link, pages: readonly Page[]): PageLink['target'] | undefined {
  if ('address' in target) return { kind: 'address', url: target.address };
  if ('documentId' in target)
    return {
      kind: 'document',
      id: target.documentId,
      title: target.title,
      page: target.pageIndex,
    };
  const { pageId, ...at } = target.place;
  const page = pages.findIndex(({ id }) => id === pageId);
  return page < 0 ? undefined : { kind: 'page', page, ...at };
}

/** The links of a page of a file, without those that are annotations of the document now. */
export function withoutOwn(fromFile: readonly PageLink[], own: readonly Link[]): PageLink[] {
  const objects = new Set(own.map(({ origin }) => origin?.object));
  return fromFile.filter(({ object }) => object === undefined || !objects.has(object));
}

/** What a link leads to, in words. */
export function linkWords({ target }: Pick<PageLink, 'target'>, pages: readonly Page[]): string {
  if (target.kind === 'address') return target.url;
  if (target.kind === 'document') return `To “${target.title}”, page ${target.page + 1}`;
  return `To page ${pages[target.page]?.label || target.page + 1}`;
}
