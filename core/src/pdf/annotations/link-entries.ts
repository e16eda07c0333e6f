import { linkAreas, type Link } from '../../document/index';
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
  if ('address' in target) {
    // 12.6.4.7: the address in 7-bit ASCII.
    const uri = new PdfString(bytesOf(encodeURI(decodeURI(target.address))));
    return { A: PdfDict.of({ Type: name('Action'), S: name('URI'), URI: uri }) };
  }
  if ('nowhere' in target) return {};
  const file = textString(`${target.title.replace(/[\\/:*?"<>|]/g, ' ').trim()}.pdf`);
  return {
    A: PdfDict.of({
      Type: name('Action'),
      S: name('GoToR'),
      F: PdfDict.of({ Type: name('Filespec'), F: file, UF: file }),
      D: [target.pageIndex, name('XYZ'), null, null, null],
      NewWindow: true,
    }),
  };
}

/** The box round a link's areas, in default user space. */
export function linkRect(link: Link, toUser: Matrix): Box {
  const { x0, y0, x1, y1 } = polygonBounds(linkAreas(link))!;
  const [a, b] = [transform(toUser, { x: x0, y: y0 }), transform(toUser, { x: x1, y: y1 })];
  return boxOf(a, b);
}
