import { Parser } from 'htmlparser2';
import {
  Numbering,
  familyFacts,
  families,
  markerOf,
  toldParagraph,
  toldRun,
  type Body,
  type Family,
  type Look,
  type Paragraph,
  type ParagraphLook,
  type Run,
} from '../../typed/index';

/*
 * Rich text strings (ISO 32000-1, 12.7.3.4): paragraphs and spans of XHTML with a few properties of CSS. What they have no
 * word for (lists, indents) is written as words are, and known again by them.
 */

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (letter) => `&#${letter.charCodeAt(0)};`);

/** A generic family of CSS 2, for programs that do not have the font. */
const GENERIC = {
  serif: 'serif',
  sans: 'sans-serif',
  mono: 'monospace',
  hand: 'cursive',
  fallback: 'sans-serif',
};

/** The properties of letters, those that differ from others' alone. */
function styleOf(look: Look, from?: Look): string {
  const styles: Record<string, string> = {
    'font-family': `'${familyFacts[look.font].name}',${GENERIC[familyFacts[look.font].kind]}`,
    'font-size': `${look.size}pt`,
    color: look.color,
    'font-weight': look.bold ? 'bold' : 'normal',
    'font-style': look.italic ? 'italic' : 'normal',
    'text-decoration':
      [look.underline ? 'underline' : '', look.strike ? 'line-through' : '']
        .filter(Boolean)
        .join(' ') || 'none',
    'vertical-align': look.script ?? 'baseline',
  };
  const usual = from ? styleOfAll(from) : {};
  return Object.entries(styles)
    .filter(([key, value]) => usual[key] !== value)
    .map(([key, value]) => `${key}:${value}`)
    .join(';');
}

const styleOfAll = (look: Look): Record<string, string> =>
  Object.fromEntries(
    styleOf(look)
      .split(';')
      .map((one) => one.split(/:(.*)/s).slice(0, 2)),
  );

const ALIGNED = { start: 'left', center: 'center', end: 'right', justify: 'justify' } as const;

/** The default style string of a text (12.7.3.4). */
export const defaultStyle = ({ look, paragraphs }: Body): string =>
  `${styleOf(look)};text-align:${ALIGNED[paragraphs[0]?.align ?? 'start']}`;

/** What stands before the words of each paragraph: the marks of lists. */
export function markersOf(paragraphs: readonly Paragraph[]): string[] {
  const numbering = new Numbering();
  return paragraphs.map((paragraph) => {
    const number = numbering.next(paragraph);
    return paragraph.list ? `${markerOf(paragraph, number)} ` : '';
  });
}

/** The words of a text as other programs are told them: with what stands before entries of lists. */
export function toldText({ paragraphs }: Pick<Body, 'paragraphs'>): string {
  const markers = markersOf(paragraphs);
  return paragraphs.map((paragraph, i) => markers[i] + toldParagraph(paragraph)).join('\n');
}

/** A text as a rich text string. */
export function richText(body: Body): string {
  const markers = markersOf(body.paragraphs);
  const paragraphs = body.paragraphs.map((paragraph, i) => {
    const runs = paragraph.runs.map((run) => {
      const { look } = run;
      const words = escaped(toldRun(run)).replaceAll('\n', '<br/>');
      const style = look ? styleOf({ ...body.look, ...look }, body.look) : '';
      return style === '' ? words : `<span style="${style}">${words}</span>`;
    });
    const direction = paragraph.direction ? ` dir="${paragraph.direction}"` : '';
    const align = ALIGNED[paragraph.align ?? 'start'];
    return `<p${direction} style="text-align:${align}">${escaped(markers[i])}${runs.join('')}</p>`;
  });
  return (
    '<?xml version="1.0"?><body xmlns="http://www.w3.org/1999/xhtml" ' +
    'xmlns:xfa="http://www.xfa.org/schema/xfa-data/1.0/" xfa:APIVersion="Stylet:1" xfa:spec="2.0.2" ' +
    `style="${styleOf(body.look)}">${paragraphs.join('')}</body>`
  );
}

/** Deeper nesting is no text that anybody wrote. */
const DEEPEST = 50;

/** The paragraphs of a rich text string, over a look; undefined where it has none. `clean` makes texts storable. */
export function readRichText(
  text: string,
  base: Look,
  clean: (text: string) => string,
): Paragraph[] | undefined {
  const paragraphs: { look: ParagraphLook; runs: Run[] }[] = [];
  const looks: Look[] = [base];
  const add = (words: string): void => {
    const paragraph = paragraphs.at(-1);
    if (!paragraph || words === '') return;
    const look = differing(base, looks.at(-1)!);
    const last = paragraph.runs.at(-1);
    if (last && JSON.stringify(last.look) === JSON.stringify(look)) last.text += words;
    else paragraph.runs.push({ text: words, ...(look ? { look } : {}) });
  };
  const parser = new Parser(
    {
      onopentag: (name, attributes) => {
        if (looks.length > DEEPEST) return;
        const style = propertiesIn(attributes['style'] ?? '');
        if (name === 'p')
          paragraphs.push({ look: paragraphLook(style, attributes['dir']), runs: [] });
        if (name === 'br') add('\n');
        const own = TAGS[name] ?? {};
        looks.push({ ...looks.at(-1)!, ...own, ...lookIn(style, looks.at(-1)!) });
      },
      ontext: (words) => add(clean(words.replace(/[\r\n\t ]+/g, ' '))),
      onclosetag: () => {
        if (looks.length > 1) looks.pop();
      },
    },
    { xmlMode: true, decodeEntities: true },
  );
  parser.end(text);
  if (paragraphs.length === 0) return undefined;
  return paragraphs.map(({ look, runs }) => ({ ...look, runs }));
}

const TAGS: Readonly<Record<string, Partial<Look>>> = {
  b: { bold: true },
  i: { italic: true },
  sup: { script: 'super' },
  sub: { script: 'sub' },
};

function differing(base: Look, look: Look): Partial<Look> | undefined {
  const entries = Object.entries(look).filter(
    ([key, value]) => (base[key as keyof Look] ?? false) !== (value ?? false),
  );
  return entries.length > 0 ? (Object.fromEntries(entries) as Partial<Look>) : undefined;
}

export function propertiesIn(style: string): Readonly<Record<string, string>> {
  return Object.fromEntries(
    style.split(';').flatMap((one) => {
      const at = one.indexOf(':');
      return at > 0 ? [[one.slice(0, at).trim().toLowerCase(), one.slice(at + 1).trim()]] : [];
    }),
  );
}

/** The look that properties of CSS say, as far as text here can have it. */
export function lookIn(style: Readonly<Record<string, string>>, before: Look): Partial<Look> {
  const look: Partial<Look> = {};
  const font = familyNamed(style['font-family']);
  if (font) look.font = font;
  const size = /([\d.]+)\s*pt/.exec(style['font-size'] ?? style['font'] ?? '');
  if (size) look.size = Math.min(400, Math.max(1, Number(size[1]) || before.size));
  const color = hexIn(style['color']);
  if (color) look.color = color;
  if (style['font-weight']) look.bold = /bold|[6-9]00/.test(style['font-weight']);
  if (style['font-style']) look.italic = /italic|oblique/.test(style['font-style']);
  const lines = style['text-decoration'];
  if (lines) {
    look.underline = /underline/.test(lines);
    look.strike = /line-through/.test(lines);
  }
  const script = style['vertical-align'];
  if (script) look.script = script === 'super' || script === 'sub' ? script : undefined;
  return look;
}

function familyNamed(names: string | undefined): Family | undefined {
  const wanted = (names ?? '').split(',').map((one) => one.trim().replace(/^['"]|['"]$/g, ''));
  return families.find((family) => wanted.includes(familyFacts[family].name));
}

/** A colour of CSS (Color 4, 5.1 and 5.2) as six digits. */
function hexIn(color = ''): string | undefined {
  const long = /^#([0-9a-f]{6})$/i.exec(color);
  if (long) return `#${long[1].toLowerCase()}`;
  const short = /^#([0-9a-f])([0-9a-f])([0-9a-f])$/i.exec(color);
  if (short)
    return `#${short
      .slice(1)
      .map((digit) => digit + digit)
      .join('')
      .toLowerCase()}`;
  const shares = /^rgb\(\s*(\d+)\s*,\s*(\d+)\s*,\s*(\d+)\s*\)$/i.exec(color);
  if (!shares) return undefined;
  return `#${shares
    .slice(1)
    .map((share) => Math.min(255, Number(share)).toString(16).padStart(2, '0'))
    .join('')}`;
}

function paragraphLook(style: Readonly<Record<string, string>>, dir = ''): ParagraphLook {
  const align = (Object.keys(ALIGNED) as (keyof typeof ALIGNED)[]).find(
    (one) => ALIGNED[one] === style['text-align'],
  );
  return {
    ...(align && align !== 'start' ? { align } : {}),
    ...(dir === 'rtl' || dir === 'ltr' ? { direction: dir } : {}),
  };
}
