import type { Page } from '@stylet/core/api';
import type { Annotation, Link, LinkTarget, PageAnnotations } from '@stylet/core/document';
import { linkAreas, standingFor } from '@stylet/core/document';
import { polygonBounds } from '@stylet/core/ink';
import type { PageLink } from '../../../../workers/protocol';

const isLink = (annotation: Annotation): annotation is Link => annotation.kind === 'link';

/** The links that were made on a page. */
export const linksOn = (page: PageAnnotations): Link[] => Object.values(page).filter(isLink);

/** Links as they are followed, one for each area; those to pages that are gone lead nowhere. */
export function followable(links: readonly Link[], pages: readonly Page[]): PageLink[] {
  return links.flatMap((link) => {
    const target = leading(link, pages);
    return target
      ? linkAreas(link).map((area) => ({ box: polygonBounds([area])!, target, own: link.id }))
      : [];
  });
}

function leading({ target }: Link, pages: readonly Page[]): PageLink['target'] | undefined {
  if ('address' in target) return { kind: 'address', url: target.address };
  if ('documentId' in target)
    return {
      kind: 'document',
      id: target.documentId,
      title: target.title,
      page: target.pageIndex,
    };
  if ('nowhere' in target) return undefined;
  const { pageId, ...at } = target.place;
  const page = pages.findIndex(({ id }) => id === pageId);
  return page < 0 ? undefined : { kind: 'page', page, ...at };
}

/** The links of a page of a file, without those that were changed, removed, or made here before. */
export function withoutOwn(fromFile: readonly PageLink[], own: readonly Link[]): PageLink[] {
  const objects = new Set(own.map(({ origin }) => origin?.object));
  return fromFile.filter(({ origin }) => !origin || !objects.has(origin.object));
}

/** The links of a file as they lead in a document; those to pages that are not in it do not lead on. */
export function inDocument(
  links: readonly PageLink[],
  source: string,
  pages: readonly Page[],
): PageLink[] {
  return links.flatMap((link) => {
    const { target } = link;
    if (target.kind !== 'page') return link;
    const page = standingFor(pages, { source, sourceIndex: target.page });
    return page === undefined ? [] : { ...link, target: { ...target, page } };
  });
}

/** Where a link as it is followed leads, as documents keep it. */
export function targetOf({ target }: PageLink, pages: readonly Page[]): LinkTarget | undefined {
  if (target.kind === 'address') return { address: target.url };
  if (target.kind === 'document')
    return { documentId: target.id, title: target.title, pageIndex: target.page };
  const { page, x, y } = target;
  const to = pages[page];
  if (!to) return undefined;
  return {
    place: {
      pageId: to.id,
      ...(x === undefined ? {} : { x }),
      ...(y === undefined ? {} : { y }),
    },
  };
}

/** What a link leads to, in words. */
export function linkWords({ target }: Pick<PageLink, 'target'>, pages: readonly Page[]): string {
  if (target.kind === 'address') return target.url;
  if (target.kind === 'document') return `To “${target.title}”, page ${target.page + 1}`;
  return `To page ${pages[target.page]?.label || target.page + 1}`;
}
