import { bodyOfBox, scaleOf, type TextBox } from '../../document/index';
import { transformBox, type Box, type Matrix } from '../../geometry/index';
import { rgbOf } from '../../paint/index';
import { familyFacts } from '../../typed/index';
import { PdfDict, name, serializeNumber, textString, type PdfValue } from '../objects/index';
import { defaultStyle, richText, toldText } from './rich-text';

/** The standard fonts (ISO 32000-1, 9.6.2.2) that come nearest, by the names that viewers know them by (common practice, no source). */
const NEAREST = { serif: 'TiRo', sans: 'Helv', mono: 'Cour', hand: 'Helv', fallback: 'Helv' };
/** /Q, table 174; what is justified is left-justified there. */
const QUADDING = { start: 0, justify: 0, center: 1, end: 2 };

const round = (value: number): number => Math.round(value * 100) / 100;

/** The entries of free text (ISO 32000-1, 12.5.6.6); `rect` its rectangle. */
export function textEntries(
  box: TextBox,
  toUser: Matrix,
  rect: Box,
): Record<string, PdfValue | undefined> {
  const body = bodyOfBox(box);
  const { background, border } = box.frame;
  const scale = scaleOf(box.transform);
  return {
    Subtype: name('FreeText'),
    IT: name('FreeText'),
    Contents: textString(toldText(body)),
    DA: textString(defaultAppearance(box, scale)),
    DS: textString(defaultStyle(body)),
    RC: textString(richText(body)),
    Q: QUADDING[box.paragraphs[0].align ?? 'start'],
    // What lies behind the text (common practice, no source: table 164 has no word for free text).
    C: background ? [...rgbOf(background)] : [],
    BS: PdfDict.of({
      Type: name('Border'),
      W: border ? round(border.width * scale) : 0,
      S: name('S'),
    }),
    RD: isUpright(box.transform) ? withinRect(box, toUser, rect) : undefined,
  };
}

/** Font, size and colour as operators (12.7.3.3). */
const defaultAppearance = ({ look, color }: TextBox, scale: number): string =>
  `${rgbOf(color)
    .map((share) => serializeNumber(round(share)))
    .join(
      ' ',
    )} rg /${NEAREST[familyFacts[look.font].kind]} ${serializeNumber(round(look.size * scale))} Tf`;

/** Whether a box stands as it was made: moved and enlarged, but not turned. */
export const isUpright = ([a, b, c, d]: Matrix): boolean =>
  Math.abs(b) + Math.abs(c) < 1e-6 && a > 0 && Math.abs(a - d) < 1e-6;

/** How far within its rectangle the box lies (table 174, RD): left, top, right and bottom. */
function withinRect(
  { size: { width, height }, transform }: TextBox,
  toUser: Matrix,
  rect: Box,
): number[] {
  const inPage = transformBox(transform, { x0: 0, y0: 0, x1: width, y1: height });
  const inner = transformBox(toUser, inPage);
  return [inner.x0 - rect.x0, rect.y1 - inner.y1, rect.x1 - inner.x1, inner.y0 - rect.y0].map(
    (value) => Math.max(0, round(value)),
  );
}
