import { tool } from './server';

type Entries = Record<string, unknown>;
type Objects = Record<string, { value?: unknown; stream?: { dict: Entries } }>;

/** What an entry has to be. */
type Rule = (value: unknown) => boolean;
const isName: Rule = (v) => typeof v === 'string' && v.startsWith('/');
const isNumber: Rule = (v) => typeof v === 'number';
const isText: Rule = (v) => typeof v === 'string' && /^[ub]:/.test(v);
const isShare: Rule = (v) => typeof v === 'number' && v >= 0 && v <= 1;
const numbers =
  (least: number, multiple = 1): Rule =>
  (v) =>
    Array.isArray(v) && v.length >= least && v.length % multiple === 0 && v.every(isNumber);
/** 7.9.4. */
const isDate: Rule = (v) =>
  typeof v === 'string' && /^u:D:\d{14}(\.\d+)?(Z|[+-]\d\d'\d\d'?)?$/.test(v);
/** 7.9.5, with its corners in the usual order. */
const isRectangle: Rule = (v) => {
  if (!numbers(4, 4)(v)) return false;
  const [x0, y0, x1, y1] = v as number[];
  return x0 <= x1 && y0 <= y1;
};

/** Entries every annotation must have, and what others are if they are there: ISO 32000-1, tables 164 and 170. */
const REQUIRED: Record<string, Rule> = { '/Subtype': isName, '/Rect': isRectangle };
const OPTIONAL: Record<string, Rule> = {
  '/Type': (v) => v === '/Annot',
  '/NM': isText,
  '/M': isDate,
  '/CreationDate': isDate,
  '/T': isText,
  '/Contents': isText,
  '/F': (v) => Number.isInteger(v),
  '/C': (v) => numbers(0)(v) && [0, 1, 3, 4].includes((v as number[]).length),
  '/CA': isShare,
  '/Name': isName,
};
/** Entries a kind of annotation must have besides: tables 175 to 182. */
const OF_KIND: Record<string, Record<string, Rule>> = {
  '/Line': { '/L': numbers(4, 4) },
  '/Square': {},
  '/Circle': {},
  '/Polygon': { '/Vertices': numbers(6, 2) },
  '/PolyLine': { '/Vertices': numbers(4, 2) },
  '/Highlight': { '/QuadPoints': numbers(8, 8) },
  '/Underline': { '/QuadPoints': numbers(8, 8) },
  '/StrikeOut': { '/QuadPoints': numbers(8, 8) },
  '/Stamp': {},
  // Table 174: the default appearance, in which text is set (12.7.3.3).
  '/FreeText': {
    '/DA': (v) => isText(v) && / rg .*\/\w+ [\d.]+ Tf/.test(v as string),
    '/Contents': isText,
    '/RC': (v) => isText(v) && (v as string).includes('http://www.w3.org/1999/xhtml'),
    '/Q': (v) => v === 0 || v === 1 || v === 2,
  },
  '/Link': {},
  // Table 172.
  '/Text': {
    '/Contents': isText,
    '/RC': (v) => isText(v) && (v as string).includes('http://www.w3.org/1999/xhtml'),
  },
  '/Ink': { '/InkList': (v) => Array.isArray(v) && v.length > 0 && v.every(numbers(2, 2)) },
};

/** The states of the two models that the standard has: table 171. */
const STATES: Record<string, readonly string[]> = {
  'u:Marked': ['u:Marked', 'u:Unmarked'],
  'u:Review': ['u:Accepted', 'u:Rejected', 'u:Cancelled', 'u:Completed', 'u:None'],
};

/**
 * What is wrong, by ISO 32000-1, with the annotations Stylet has written into a file, as qpdf reads
 * it: their required entries and the types of the others, that their pages list them, and the
 * dictionaries of the forms and images they are drawn by. Empty when all is well.
 */
export function faultsIn(path: string): string[] {
  const { qpdf } = JSON.parse(tool('qpdf', '--json', '--json-key=qpdf', path)) as {
    qpdf: [unknown, Objects];
  };
  return new Checker(qpdf[1]).faults();
}

class Checker {
  private readonly found: string[] = [];
  private readonly seen = new Set<string>();

  constructor(private readonly objects: Objects) {}

  faults(): string[] {
    for (const [key, { value }] of Object.entries(this.objects)) {
      const entries = value as Entries | undefined;
      if (entries?.['/StyletAnnotation']) this.annotation(key.replace('obj:', ''), entries);
    }
    return this.found;
  }

  private annotation(ref: string, entries: Entries): void {
    const kind = String(entries['/Subtype']);
    if (!OF_KIND[kind]) this.found.push(`${ref} is of the unknown kind ${kind}`);
    this.rules(`${ref} (${kind})`, entries, { ...REQUIRED, ...OF_KIND[kind] }, OPTIONAL);
    const page = this.dict(entries['/P']);
    const annots = (page ? this.resolve(page['/Annots']) : []) as unknown[];
    if (!annots?.includes(ref)) this.found.push(`${ref} is not among the annotations of its page`);
    // Table 173: a link leads somewhere by one of two entries, and is drawn by none.
    if (kind === '/Link') {
      if ('/Dest' in entries === '/A' in entries) this.found.push(`${ref} leads nowhere, or twice`);
      return;
    }
    if (kind === '/Text') this.note(ref, entries, annots);
    const appearance = this.dict(entries['/AP']);
    const normal = String(appearance?.['/N']);
    if (this.objects[`obj:${normal}`]?.stream) this.form(normal);
    else this.found.push(`${ref} has no normal appearance that is a stream`);
  }

  /** Table 170: replies and what they answer; 171 and 172: states; 183: the window of a note. */
  private note(ref: string, entries: Entries, annots: readonly unknown[]): void {
    const [parent, window] = [entries['/IRT'], entries['/Popup']];
    if (parent !== undefined && !annots.includes(parent))
      this.found.push(`${ref} answers what is not on its page`);
    if ((parent !== undefined) !== (entries['/RT'] === '/R'))
      this.found.push(`${ref} does not say how it answers`);
    const [model, state] = [entries['/StateModel'], entries['/State']];
    if (state !== undefined && !STATES[String(model)]?.includes(String(state)))
      this.found.push(`${ref} is of the state ${String(state)} of ${String(model)}`);
    if (state !== undefined && parent === undefined)
      this.found.push(`${ref} sets the state of nothing`);
    if (parent !== undefined) return;
    const popup = this.dict(window);
    if (!popup || !annots.includes(window)) this.found.push(`${ref} has no window on its page`);
    else
      this.rules(
        `${ref} /Popup`,
        popup,
        { '/Subtype': (v) => v === '/Popup', '/Rect': isRectangle },
        { '/Parent': () => popup['/Parent'] === ref, '/Open': (v) => typeof v === 'boolean' },
      );
  }

  /** Table 95, and what the form draws. */
  private form(ref: string): void {
    if (this.seen.has(ref)) return;
    this.seen.add(ref);
    const dict = this.objects[`obj:${ref}`].stream!.dict;
    this.rules(
      ref,
      dict,
      { '/Subtype': (v) => v === '/Form', '/BBox': isRectangle },
      { '/Type': (v) => v === '/XObject', '/FormType': (v) => v === 1, '/Matrix': numbers(6, 6) },
    );
    // Table 147: groups that are transparent.
    const group = this.dict(dict['/Group']);
    if (group) this.rules(`${ref} /Group`, group, { '/S': (v) => v === '/Transparency' }, {});
    for (const font of Object.values(this.dict(this.dict(dict['/Resources'])?.['/Font']) ?? {}))
      this.font(String(font));
    const objects = this.dict(this.dict(dict['/Resources'])?.['/XObject']) ?? {};
    for (const object of Object.values(objects)) {
      const stream = this.objects[`obj:${String(object)}`]?.stream;
      if (!stream) this.found.push(`${ref} names ${String(object)}, which is no stream`);
      else if (stream.dict['/Subtype'] === '/Image') this.image(String(object), stream.dict);
      else this.form(String(object));
    }
  }

  /** Tables 121, 117 and 122: composite fonts, what they are made of, and that it is in the file. */
  private font(ref: string): void {
    if (this.seen.has(ref)) return;
    this.seen.add(ref);
    const font = this.dict(ref) ?? {};
    const isCalled: Rule = (v) => typeof v === 'string' && /^\/[A-Z]{6}\+[\w-]+$/.test(v);
    this.rules(
      ref,
      font,
      {
        '/Type': (v) => v === '/Font',
        '/Subtype': (v) => v === '/Type0',
        '/BaseFont': isCalled,
        '/Encoding': (v) => v === '/Identity-H',
        '/DescendantFonts': (v) => Array.isArray(v) && v.length === 1,
      },
      {},
    );
    const [below] = (this.resolve(font['/DescendantFonts']) ?? []) as unknown[];
    const descendant = this.dict(below) ?? {};
    this.rules(
      `${ref} /DescendantFonts`,
      descendant,
      {
        '/Type': (v) => v === '/Font',
        '/Subtype': (v) => v === '/CIDFontType0' || v === '/CIDFontType2',
        '/BaseFont': (v) => v === font['/BaseFont'],
        '/CIDSystemInfo': (v) => typeof v === 'object' && v !== null,
        '/W': (v) => Array.isArray(v) && v.length % 2 === 0,
      },
      {},
    );
    const descriptor = this.dict(descendant['/FontDescriptor']) ?? {};
    this.rules(
      `${ref} /FontDescriptor`,
      descriptor,
      {
        '/Type': (v) => v === '/FontDescriptor',
        '/FontName': (v) => v === font['/BaseFont'],
        '/Flags': (v) => Number.isInteger(v),
        '/FontBBox': isRectangle,
        '/ItalicAngle': isNumber,
        '/Ascent': isNumber,
        '/Descent': isNumber,
        '/StemV': isNumber,
      },
      {},
    );
    const file = descriptor['/FontFile2'] ?? descriptor['/FontFile3'];
    if (!this.objects[`obj:${String(file)}`]?.stream) this.found.push(`${ref} is not in the file`);
  }

  /** Table 89; table 145 for soft masks. */
  private image(ref: string, dict: Entries, isMask = false): void {
    const isSpace: Rule = (v) =>
      isMask ? v === '/DeviceGray' : isName(v) || Array.isArray(this.resolve(v));
    const isStencil = dict['/ImageMask'] === true;
    this.rules(
      ref,
      dict,
      {
        '/Width': (v) => Number.isInteger(v),
        '/Height': (v) => Number.isInteger(v),
        ...(isStencil ? {} : { '/ColorSpace': isSpace, '/BitsPerComponent': (v) => v === 8 }),
      },
      { '/Type': (v) => v === '/XObject', '/Decode': numbers(2, 2) },
    );
    const mask = dict['/SMask'];
    if (mask) this.image(String(mask), this.objects[`obj:${String(mask)}`].stream!.dict, true);
  }

  private rules(
    of: string,
    entries: Entries,
    required: Record<string, Rule>,
    optional: Record<string, Rule>,
  ): void {
    for (const [key, rule] of Object.entries(required))
      if (!rule(this.resolve(entries[key])))
        this.found.push(`${of}: ${key} is ${JSON.stringify(entries[key])}`);
    for (const [key, rule] of Object.entries(optional))
      if (key in entries && !rule(this.resolve(entries[key])))
        this.found.push(`${of}: ${key} is ${JSON.stringify(entries[key])}`);
  }

  private resolve(value: unknown): unknown {
    return typeof value === 'string' && /^\d+ \d+ R$/.test(value)
      ? this.objects[`obj:${value}`]?.value
      : value;
  }

  private dict(value: unknown): Entries | undefined {
    const resolved = this.resolve(value);
    return typeof resolved === 'object' && resolved !== null ? (resolved as Entries) : undefined;
  }
}
