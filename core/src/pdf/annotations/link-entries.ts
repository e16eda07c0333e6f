import { linkAreas, type Link, type LinkTarget } from '../../document/index';
import { boxOf, transform, type Box, type Matrix } from '../../geometry/index';
import { polygonBounds } from '../../ink/index';
import { explicitDestination, type PlacedById } from '../landmarks/write-outline';
import { PdfDict, PdfString, bytesOf, name, textString, type PdfValue } from '../objects/index';

/**
 * What ISO 32000-1, 12.5.6.5, asks of a link: its areas, and where it leads. `rect` covers them. A link to
 * another document leads to a file of that document's name beside this one (12.6.4.3).
 */
export function linkEntries(
  link: Link,
  toUser: Matrix,
  placed: PlacedById,
): Record<string, PdfValue> {
  const round = (value: number): number => Math.round(value * 100) / 100;
  const points = link.quads.flatMap((quad) =>
    [0, 2, 4, 6].flatMap((i) => {
      const { x, y } = transform(toUser, { x: quad[i], y: quad[i + 1] });
      return [round(x), round(y)];
    }),
  );
  return {
    Subtype: name('Link'),
    QuadPoints: points,
    Border: [0, 0, 0],
    H: name('I'),
    Contents: textString(link.contents),
    ...leading(link, placed),
  };
}

function leading({ target }: Link, placed: PlacedById): Record<string, PdfValue> {
  if ('place' in target) {
    const dest = explicitDestination(target.place, placed);
    return dest === null ? {} : { Dest: dest };
  }
  const action = linkAction(target);
  return action ? { A: action } : {};
}

/** The action of a link that leads out of its file (12.6); undefined for one that does not. */
export function linkAction(target: LinkTarget): PdfDict | undefined {
  if ('address' in target)
    return PdfDict.of({ Type: name('Action'), S: name('URI'), URI: asciiAddress(target.address) });
  if (!('documentId' in target)) return undefined;
  const file = textString(`${target.title.replace(/[\\/:*?"<>|]/g, ' ').trim()}.pdf`);
  return PdfDict.of({
    Type: name('Action'),
    S: name('GoToR'),
    F: PdfDict.of({ Type: name('Filespec'), F: file, UF: file }),
    D: [target.pageIndex, name('XYZ'), null, null, null],
    NewWindow: true,
  });
}

/** 12.6.4.7: the address in 7-bit ASCII; what is percent-encoded already stays so. */
function asciiAddress(address: string): PdfString {
  return new PdfString(bytesOf(encodeURI(address).replaceAll(/%25(?=[0-9a-f]{2})/gi, '%')));
}

/** The box round a link's areas, in default user space. */
export function linkRect(link: Link, toUser: Matrix): Box {
  const { x0, y0, x1, y1 } = polygonBounds(linkAreas(link))!;
  const [a, b] = [transform(toUser, { x: x0, y: y0 }), transform(toUser, { x: x1, y: y1 })];
  return boxOf(a, b);
}
