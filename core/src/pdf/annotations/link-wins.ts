import { linkTargetSchema, type Link, type LinkTarget } from '../../document/index';
import { compose } from '../../geometry/index';
import { instantOf, nameText, textOf, type PdfDict, type PdfFile } from '../objects/index';
import { pageToUser, readBox, userToPage, type PdfPage } from '../pages';
import type { Cleaning } from '../storable';
import { isHidden, numbersOf } from './entries';
import { saysSame } from './fingerprint';
import { linkAction, linkEntries, linkRect } from './link-entries';
import { movedBy } from './own-copy';
import { boxMap, quadsOf } from './comparison';
import { rectangle } from './write';

/**
 * A link that Stylet wrote, with what other programs have changed of it. Where it leads in its own file is found out
 * when all pages are known. Undefined where it leads somewhere that is no target here: it is the file's link then.
 */
export function linkAsTheFileHasIt(
  file: PdfFile,
  page: PdfPage,
  dict: PdfDict,
  link: Link,
  clean: Cleaning,
): Link | undefined {
  const target = targetIn(file, dict, link.target);
  if (!target) return undefined;
  const contents = clean.text(textOf(file.resolve(dict.get('Contents'))), 100_000);
  const author = clean.text(textOf(file.resolve(dict.get('T'))), 200);
  const modified = instantOf(file.resolve(dict.get('M')));
  // A PDF's date has no milliseconds.
  const isDated = modified && modified.slice(0, 19) !== link.modified.slice(0, 19);
  return {
    ...inItsPlace(file, page, dict, link),
    target,
    contents,
    author,
    ...(isDated ? { modified } : {}),
    ...(isHidden(file, dict) ? { hidden: true } : {}),
  };
}

/** Where a link leads, if that is a target of Stylet's. */
export function targetIn(file: PdfFile, dict: PdfDict, kept: LinkTarget): LinkTarget | undefined {
  const action = file.dict(dict.get('A'));
  const kind = action && nameText(file.resolve(action.get('S')));
  if (dict.get('Dest') !== null || kind === 'GoTo')
    return 'place' in kept || 'nowhere' in kept ? kept : { nowhere: true };
  if (!action) return 'place' in kept ? { nowhere: true } : kept;
  if (kind === 'URI') {
    const address = textOf(file.resolve(action.get('URI')));
    // An address written in ASCII (percent signs, Punycode) may be the same as the one kept.
    if ('address' in kept && saysSame(file, action, linkAction(kept)!)) return kept;
    const parsed = linkTargetSchema.safeParse({ address });
    return parsed.success ? parsed.data : undefined;
  }
  const written = linkAction(kept);
  return kind === 'GoToR' && written && saysSame(file, action, written) ? kept : undefined;
}

function inItsPlace(file: PdfFile, page: PdfPage, dict: PdfDict, link: Link): Link {
  const [toUser, toPage] = [pageToUser(page.box), userToPage(page.box)];
  const { QuadPoints: areas } = linkEntries(link, toUser, new Map());
  const quads = quadsOf(numbersOf(file, dict.get('QuadPoints')), toPage);
  if (quads.length > 0 && !saysSame(file, dict.get('QuadPoints'), areas)) return { ...link, quads };
  const before = rectangle(linkRect(link, toUser));
  const [from, to] = [readBox(file, before), readBox(file, dict.get('Rect'))];
  if (!from || !to || saysSame(file, dict.get('Rect'), before)) return link;
  const map = boxMap(from, to);
  return map ? movedBy(link, compose(toUser, compose(map, toPage))) : link;
}
