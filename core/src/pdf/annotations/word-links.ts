import { isShown, type Annotation, type TextBox } from '../../document/index';
import { boundsOf, transform } from '../../geometry/index';
import { linksOfBox } from '../../typesetting/index';
import { PdfDict, name, type PdfFile, type PdfRef, type PdfValue } from '../objects/index';
import { pageToUser } from '../pages';
import { linkAction } from './link-entries';
import type { Target } from './target';
import { rectangle } from './write';

/**
 * The key of a link that says that it is of words of typed text beside it. The text says it itself where it is read here, so that
 * such links are written anew with each export, and not taken in.
 */
const WORDS_KEY = 'StyletWords';

/** Whether an annotation is a link of words that Stylet has written beside them. */
export const isWordLink = (file: PdfFile, value: PdfValue): boolean =>
  file.dict(value)?.get(WORDS_KEY) === true;

/**
 * Writes links for the words of typed text that lead somewhere: free text can have none of its own (ISO 32000-1, 12.5.6.6).
 * `isText`: the text is beside them as free text; else it has been drawn into the page, and they are all that is left.
 */
export function setWordLinks(
  target: Target,
  annotations: readonly Annotation[],
  isText: boolean,
): PdfRef[] {
  const boxes = annotations.filter((one): one is TextBox => one.kind === 'textBox' && isShown(one));
  return boxes.flatMap((box) =>
    linksOfBox(box, (one) => target.written.layoutOf(one)).map(({ corners, address }, i) => {
      const { update, page, before } = target;
      const toUser = pageToUser(page.box);
      const points = corners.map((corner) => transform(toUser, corner));
      const [topLeft, topRight, bottomRight, bottomLeft] = points;
      const ref = page.isCopy ? update.reserve() : before.refFor(update, `words ${i} of ${box.id}`);
      update.set(
        ref,
        PdfDict.of({
          Type: name('Annot'),
          Subtype: name('Link'),
          Rect: rectangle(boundsOf(points)!),
          // As other programs have it: both at the top, then both at the bottom.
          QuadPoints: [topLeft, topRight, bottomLeft, bottomRight].flatMap(({ x, y }) =>
            [x, y].map((value) => Math.round(value * 100) / 100),
          ),
          Border: [0, 0, 0],
          F: 4, // Print: table 165.
          P: page.ref,
          A: linkAction({ address }),
          [WORDS_KEY]: isText ? true : undefined,
        }),
      );
      return ref;
    }),
  );
}
