import { transformBox, type Box } from '../geometry/index';
import { PdfString, textOf, type PdfFile } from './objects/index';
import { readBox, userToPage, type PdfPage } from './pages';
import { subtypeOf } from './annotations/kinds';

/** The addresses that links on a page lead to (URI actions, ISO 32000-1, 12.6.4.7), and where they are in page space. */
export function linkAddresses(file: PdfFile, page: PdfPage): { address: string; box: Box }[] {
  const toPage = userToPage(page.box);
  return file.array(page.dict.get('Annots')).flatMap((value) => {
    const dict = file.dict(value);
    if (!dict || subtypeOf(file, dict) !== 'Link') return [];
    const action = file.dict(dict.get('A'));
    const uri = action && file.resolve(action.get('URI'));
    const box = readBox(file, dict.get('Rect'));
    if (!(uri instanceof PdfString) || !box) return [];
    return [{ address: textOf(uri), box: transformBox(toPage, box) }];
  });
}
