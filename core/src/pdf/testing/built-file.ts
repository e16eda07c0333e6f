import { zlibSync } from 'fflate';
import { bytesOf, joinBytes } from '../objects/index';

/** An object of a file that is built for a test: what stands between `obj` and `endobj`, or a stream. */
export type BuiltObject =
  | string
  | {
      readonly dict: string;
      readonly data: Uint8Array;
    };

export interface Building {
  /** The form of its cross-references (ISO 32000-1, 7.5.4 and 7.5.8). */
  readonly form: 'table' | 'stream';
  /** Numbers of objects that go into an object stream (7.5.7); only with the form “stream”. */
  readonly packed?: ReadonlySet<number>;
  /** Entries of the trailer besides /Size. */
  readonly trailer: string;
}

/** A PDF, or an update of one that is `behind`, of objects by their numbers. */
export function builtPdf(
  objects: ReadonlyMap<number, BuiltObject>,
  { form, packed = new Set(), trailer }: Building,
  behind: Uint8Array = new Uint8Array(),
): Uint8Array {
  const parts: Uint8Array[] = [behind.length > 0 ? bytesOf('\n') : bytesOf('%PDF-1.7\n')];
  let at = behind.length + parts[0].length;
  const push = (bytes: Uint8Array): void => {
    parts.push(bytes);
    at += bytes.length;
  };
  const rows = new Map<number, [number, number, number]>([[0, [0, 0, 65535]]]);
  const write = (number: number, object: BuiltObject): void => {
    rows.set(number, [1, at, 0]);
    push(bytesOf(`${number} 0 obj\n`));
    push(bodyOf(object));
    push(bytesOf('\nendobj\n'));
  };
  let next = Math.max(0, ...objects.keys()) + 1;
  for (const [number, object] of objects) if (!packed.has(number)) write(number, object);
  if (packed.size > 0) {
    const container = next++;
    const inside = [...objects].filter(([number]) => packed.has(number));
    write(container, objectStream(inside));
    inside.forEach(([number], index) => rows.set(number, [2, container, index]));
  }
  const start = at;
  const prev = behind.length > 0 ? `/Prev ${lastStart(behind)} ` : '';
  if (form === 'table') {
    const size = Math.max(...rows.keys()) + 1;
    push(bytesOf(tableOf(rows)));
    push(bytesOf(`trailer\n<< /Size ${size} ${prev}${trailer} >>\n`));
  } else {
    const own = next++;
    rows.set(own, [1, start, 0]);
    const sorted = [...rows].sort(([a], [b]) => a - b);
    const data = Uint8Array.from(
      sorted.flatMap(([, [type, second, third]]) => [
        type,
        second >>> 24,
        (second >>> 16) & 255,
        (second >>> 8) & 255,
        second & 255,
        (third >> 8) & 255,
        third & 255,
      ]),
    );
    const index = sorted.map(([number]) => `${number} 1`).join(' ');
    const dict = `/Type /XRef /W [1 4 2] /Index [${index}] /Size ${own + 1} ${prev}${trailer}`;
    push(bytesOf(`${own} 0 obj\n`));
    push(bodyOf({ dict, data }));
    push(bytesOf('\nendobj\n'));
  }
  push(bytesOf(`startxref\n${start}\n%%EOF\n`));
  return joinBytes([behind, ...parts]);
}

function bodyOf(object: BuiltObject): Uint8Array {
  if (typeof object === 'string') return bytesOf(object);
  const { dict, data } = object;
  return joinBytes([
    bytesOf(`<< ${dict} /Length ${data.length} >>\nstream\n`),
    data,
    bytesOf('\nendstream'),
  ]);
}

function objectStream(objects: readonly (readonly [number, BuiltObject])[]): BuiltObject {
  let offset = 0;
  const head = objects.map(([number, body]) => {
    const entry = `${number} ${offset}`;
    offset += (body as string).length + 1;
    return entry;
  });
  const first = `${head.join(' ')} `;
  const text = first + objects.map(([, body]) => `${body as string} `).join('');
  return {
    dict: `/Type /ObjStm /N ${objects.length} /First ${first.length} /Filter /FlateDecode`,
    data: zlibSync(bytesOf(text)),
  };
}

function tableOf(rows: ReadonlyMap<number, readonly [number, number, number]>): string {
  const sorted = [...rows].sort(([a], [b]) => a - b);
  const lines = sorted.map(([number, [type, offset, generation]]) => {
    const row = `${String(offset).padStart(10, '0')} ${String(generation).padStart(5, '0')}`;
    return `${number} 1\n${row} ${type === 0 ? 'f' : 'n'}\r\n`;
  });
  return `xref\n${lines.join('')}`;
}

function lastStart(bytes: Uint8Array): number {
  let tail = '';
  for (const byte of bytes.subarray(-64)) tail += String.fromCharCode(byte);
  return Number(/startxref\n(\d+)/.exec(tail)![1]);
}
