import { zlibSync } from 'fflate';
import { seeded } from '../../random/index';
import { bytesOf, joinBytes } from '../objects/index';
import { builtPdf, type BuiltObject } from './built-file';

class Chance {
  readonly next: () => number;
  /** Whether values may break the syntax around them. */
  readonly breaks: boolean;

  constructor(seed: number) {
    this.next = seeded(seed);
    this.breaks = this.oneIn(4);
  }

  /** Whether, in one of so many cases. */
  oneIn(n: number): boolean {
    return this.next() * n < 1;
  }

  upTo(n: number): number {
    return Math.floor(this.next() * n);
  }

  of<T>(list: readonly T[]): T {
    return list[this.upTo(list.length)];
  }
}

const NUMBERS = [
  ...['0', '-1', '1e9', '2147483648', '4294967296', '-9007199254740993', '2000000000', '.', '--5'],
  ...[`1${'0'.repeat(400)}`, `-1${'0'.repeat(400)}`, '0.0000000001', '99999999999999999999'],
];
const STRINGS = [
  '()',
  '(\\000\\000nul)',
  '<FEFFD800>',
  '<FEFFDC00D800>',
  '<FEFF0000>',
  `(${'long '.repeat(2000)})`,
  '<EFBBBFFF>',
  '(D:99999999999999)',
  '(D:00000101000000)',
  "(D:20269931256199+99'99')",
  '(\u001bX',
];
const NAMES = ['/Page', '/Pages', '/Highlight', '/Ink', '/Link', '/A#00B', `/${'N'.repeat(500)}`];

/** A value of any kind, wrong in some way more often than not. */
function value(chance: Chance, depth = 0): string {
  const ref = (): string => `${chance.upTo(24)} 0 R`;
  switch (chance.upTo(depth > 4 ? 5 : 8)) {
    case 0:
      return chance.of(NUMBERS);
    case 1:
      return chance.of(STRINGS);
    case 2:
      return chance.of(NAMES);
    case 3:
      return ref();
    case 4:
      return chance.of(
        chance.breaks ? ['<<', ']', 'obj', '>>', ')'] : ['null', 'true', 'false', '[]', '<< >>'],
      );
    case 5: {
      const items = Array.from({ length: chance.upTo(8) }, () => value(chance, depth + 1));
      return `[${items.join(' ')}]`;
    }
    case 6:
      return chance.breaks ? `${'['.repeat(chance.upTo(400))}1` : '[[[[1]]]]';
    default:
      return dict(chance, depth + 1);
  }
}

const KEYS = [
  ...[
    'Type',
    'Kids',
    'Count',
    'Parent',
    'Annots',
    'Rect',
    'InkList',
    'QuadPoints',
    'Contents',
    'M',
  ],
  ...['C', 'CA', 'F', 'Next', 'First', 'Title', 'Dest', 'A', 'D', 'Names', 'Nums', 'S', 'St', 'P'],
  ...['MediaBox', 'CropBox', 'Rotate', 'AP', 'N', 'IRT', 'Popup', 'Subtype', 'Length', 'Resources'],
];

function dict(chance: Chance, depth: number): string {
  const entries = Array.from({ length: chance.upTo(8) }, () => {
    return `/${chance.of(KEYS)} ${value(chance, depth)}`;
  });
  return `<< ${entries.join(' ')} >>`;
}

/** A well-made value, or, sometimes, a hostile one in its place. */
const or = (chance: Chance, good: string, odds = 16): string =>
  chance.oneIn(odds) ? value(chance) : good;

/** Objects of a file that has everything a document is read for. */
function objectsOf(chance: Chance): Map<number, BuiltObject> {
  const v = (good: string, odds?: number): string => or(chance, good, odds);
  const annotation = (subtype: string, more: string): string =>
    `<< /Type /Annot /Subtype ${v(subtype)} /Rect ${v('[20 20 80 60]')} /M ${v('(D:20260901080000Z)')}` +
    ` /C ${v('[1 0 0]')} /CA ${v('0.5')} /Contents ${v('(words)')} /T ${v('(A)')} /F ${v('4')} ${more} >>`;
  return new Map<number, BuiltObject>([
    [
      1,
      `<< /Type /Catalog /Pages ${v('2 0 R', 40)} /Outlines ${v('10 0 R')} /PageLabels ${v('12 0 R')} /Names ${v('13 0 R')} /AcroForm ${v('14 0 R')} >>`,
    ],
    [
      2,
      `<< /Type /Pages /Kids ${v('[3 0 R 4 0 R]', 20)} /Count ${v('2')} /MediaBox ${v('[0 0 300 400]')} >>`,
    ],
    [
      3,
      `<< /Type /Page /Parent 2 0 R /Annots ${v('[5 0 R 6 0 R 7 0 R 8 0 R]')} /Rotate ${v('90')} /Contents ${v('9 0 R')} >>`,
    ],
    [
      4,
      `<< /Type ${v('/Page')} /Parent ${v('2 0 R')} /CropBox ${v('[0 0 100 100]')} /Annots ${v('7 0 R')} >>`,
    ],
    [5, annotation('/Ink', `/InkList ${v('[[20 20 40 40 60 20]]')} /BS << /W ${v('2')} >>`)],
    [6, annotation('/Highlight', `/QuadPoints ${v('[20 60 80 60 20 20 80 20]')}`)],
    [7, annotation('/Link', `/Dest ${v('[3 0 R /XYZ 0 0 0]')}`)],
    [8, annotation('/Text', `/IRT ${v('6 0 R')} /Popup ${v('8 0 R')}`)],
    [9, { dict: '/Filter /FlateDecode', data: zlibSync(bytesOf('0 0 m 10 10 l S')) }],
    [10, `<< /First ${v('11 0 R')} /Last 11 0 R /Count ${v('1')} >>`],
    [
      11,
      `<< /Title ${v('(One)')} /Parent 10 0 R /Next ${v('null')} /First ${v('null')} /Dest ${v('[4 0 R /Fit]')} >>`,
    ],
    [
      12,
      `<< /Nums ${v(`[0 << /S /r /St ${v('1', 3)} /P ${v('()')} >> 1 << /S /D >>]`)} /Kids ${v('null')} >>`,
    ],
    [
      13,
      `<< /Dests << /Names ${v('[(a) [3 0 R /Fit]]')} /Kids ${v('null')} >> /EmbeddedFiles ${v('null')} >>`,
    ],
    [14, `<< /Fields ${v('[15 0 R]')} >>`],
    [
      15,
      `<< /FT ${v('/Sig')} /V ${v('<< /Type /Sig >>')} /Kids ${v('null')} /Parent ${v('null')} >>`,
    ],
  ]);
}

/** Streams that become much more than they are, or go round in circles. */
const SPECIAL: readonly ((chance: Chance) => Uint8Array)[] = [
  // Entries of width 0: a reader that counts bytes never comes to their end.
  (chance) =>
    rawXref(`/W [0 0 0] /Index [0 ${chance.of(['1', '999999999999'])}]`, new Uint8Array(9)),
  () => rawXref('/W [1 4 2] /Index [0 999999999999]', new Uint8Array(70)),
  () => rawXref('/W [999999999 4 2]', new Uint8Array(70)),
  (chance) =>
    rawXref(
      `/W [1 4 2] /Filter /FlateDecode /DecodeParms << /Predictor 12 /Columns ${chance.of(['-1', '0', '999999999'])} /Colors ${chance.of(['0', '1e9'])} >>`,
      zlibSync(new Uint8Array(700)),
    ),
  // A bomb: each filter makes a thousand bytes of one.
  (chance) => {
    let data = new Uint8Array(chance.of([1_000_000, 1_000_000, 1_000_000, 20_000_000]));
    const filters = 1 + chance.upTo(3);
    for (let i = 0; i < filters; i++) data = Uint8Array.from(zlibSync(data));
    const names = Array.from({ length: filters }, () => '/FlateDecode').join(' ');
    return rawXref(`/W [1 4 2] /Filter [${names}]`, data);
  },
  () => {
    const start = '%PDF-1.7\n'.length;
    const table = 'xref\n0 999999999\n0000000000 65535 f\r\n';
    return bytesOf(
      `%PDF-1.7\n${table}trailer\n<< /Size 4 /Root 1 0 R /Prev ${start} >>\nstartxref\n${start}\n%%EOF\n`,
    );
  },
  (chance) => nestedPages(chance.of([50, 3000])),
  (chance) => deepOutline(chance.of([100, 5000])),
];

function rawXref(entries: string, data: Uint8Array): Uint8Array {
  const head = `%PDF-1.7\n1 0 obj\n<< /Type /XRef /Size 3 /Root 2 0 R ${entries} /Length ${data.length} >>\nstream\n`;
  return joinBytes([bytesOf(head), data, bytesOf('\nendstream\nendobj\nstartxref\n9\n%%EOF\n')]);
}

function nestedPages(levels: number): Uint8Array {
  const objects = new Map<number, BuiltObject>([[1, '<< /Type /Catalog /Pages 2 0 R >>']]);
  for (let i = 0; i < levels; i++)
    objects.set(2 + i, `<< /Type /Pages /Kids [${3 + i} 0 R] /Count 1 >>`);
  objects.set(2 + levels, '<< /Type /Page /MediaBox [0 0 9 9] >>');
  return builtPdf(objects, { form: 'table', trailer: '/Root 1 0 R' });
}

function deepOutline(levels: number): Uint8Array {
  const objects = new Map<number, BuiltObject>([
    [1, '<< /Type /Catalog /Pages 2 0 R /Outlines 4 0 R >>'],
    [2, '<< /Type /Pages /Kids [3 0 R] /Count 1 >>'],
    [3, '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 9 9] >>'],
    [4, '<< /First 5 0 R /Last 5 0 R >>'],
  ]);
  for (let i = 0; i < levels; i++)
    objects.set(5 + i, `<< /Title (${i}) /Dest [3 0 R /Fit] /First ${6 + i} 0 R >>`);
  return builtPdf(objects, { form: 'stream', trailer: '/Root 1 0 R' });
}

/** A PDF made to be hard on whoever reads it; the same one for the same seed. */
export function hostilePdf(seed: number): Uint8Array {
  const chance = new Chance(seed);
  if (chance.oneIn(5)) return chance.of(SPECIAL)(chance);
  const form = chance.of(['table', 'stream'] as const);
  const objects = objectsOf(chance);
  const plain = [...objects].flatMap(([number, body]) => (typeof body === 'string' ? number : []));
  const packed = new Set(form === 'stream' ? plain.filter(() => chance.oneIn(2)) : []);
  const trailer = `/Root ${or(chance, '1 0 R', 40)} /Info ${or(chance, '<< /Title (Hostile) >>')}`;
  const bytes = builtPdf(objects, { form, packed, trailer });
  if (!chance.oneIn(4)) return bytes;
  // Cut off, or with bytes of it changed.
  if (chance.oneIn(2)) return bytes.slice(0, chance.upTo(bytes.length));
  const damaged = bytes.slice();
  for (let i = chance.upTo(12); i >= 0; i--) damaged[chance.upTo(bytes.length)] = chance.upTo(256);
  return damaged;
}
