import { ElementType, parseDocument } from 'htmlparser2';
import type { AnyNode, Element, ParentNode } from 'domhandler';
import {
  FORMULA,
  MOST_INDENT,
  addressSchema,
  toldParagraph,
  type Alignment,
  type Look,
  type Run,
} from '../typed/index';
import { cleaned } from './html-clean';
import {
  BOLD,
  INLINE,
  PARAGRAPHS,
  alignOf,
  cellOf,
  linked,
  pictureOf,
  plainOf,
} from './html-elements';
import { isOnItsOwn, notationOf } from './html-formulas';
import { Words } from './html-words';
import type { PicturesNamed } from './pictures';
import { LONGEST_PAGES, type Block, type Cell, type Role, type TextParagraph } from './text';

/** What HTML says, as a text. */
export interface ReadText {
  readonly blocks: Block[];
  /** What it is called, where it says so. */
  readonly title: string | undefined;
}

/** Where one is in HTML. */
interface Within {
  readonly look: Partial<Look>;
  readonly role: Role | undefined;
  readonly indent: number;
  readonly isPre: boolean;
}

const OUTSIDE: Within = { look: {}, role: undefined, indent: 0, isPre: false };

/** The text of HTML: what of it can be read, cleaned of all else. */
export function textOfHtml(html: string, pictures: PicturesNamed = () => undefined): ReadText {
  const title = /<title[^>]*>([^<]*)<\/title>/i.exec(html)?.[1];
  const clean = cleaned(html, 2 * LONGEST_PAGES);
  const reader = new Reader(pictures);
  reader.children(parseDocument(clean), OUTSIDE);
  const blocks = reader.done();
  const called = title === undefined ? '' : plainOf(parseDocument(title));
  return { blocks, title: called.trim().replace(/\s+/g, ' ') || headingIn(blocks) };
}

const headingIn = (blocks: readonly Block[]): string | undefined => {
  const first = blocks.find((block) => block.kind === 'paragraph' && block.role === 'heading1');
  if (first?.kind !== 'paragraph') return undefined;
  return toldParagraph(first).replace(/\s+/g, ' ').trim() || undefined;
};

/** Turns elements into blocks. */
class Reader {
  private readonly blocks: Block[] = [];
  private open: Omit<TextParagraph, 'kind' | 'runs'> | undefined;
  private words = new Words(false);
  /** What the next paragraph is marked with, being the first of an entry of a list. */
  private entry: Pick<TextParagraph, 'list' | 'start' | 'isDone'> | undefined;

  constructor(private readonly pictures: PicturesNamed) {}

  children(parent: ParentNode, within: Within): void {
    for (const node of parent.children) this.node(node, within);
  }

  done(): Block[] {
    this.end();
    return this.blocks.length > 0 ? this.blocks : [{ kind: 'paragraph', runs: [] }];
  }

  private node(node: AnyNode, within: Within): void {
    if (node.type === ElementType.Text) this.say(node.data, within);
    else if (node.type === ElementType.Tag) this.element(node, within);
  }

  private element(element: Element, within: Within): void {
    const { name } = element;
    if (name === 'br') this.say('\n', { ...within, isPre: true });
    else if (name === 'hr') {
      this.end();
      this.blocks.push({ kind: 'rule' });
    } else if (name === 'math') this.formula(element, within);
    else if (name === 'table') this.table(element, within);
    else if (name === 'img') this.picture(element, within);
    else if (name === 'a')
      this.children(element, { ...within, look: linked(element, within.look) });
    else if (PARAGRAPHS.has(name)) this.paragraphs(element, within);
    else this.children(element, { ...within, look: { ...within.look, ...INLINE[name] } });
  }

  private paragraphs(element: Element, within: Within): void {
    this.end();
    const { name } = element;
    const further = Math.min(MOST_INDENT - 1, within.indent + 1);
    if (name === 'ul' || name === 'ol') this.list(element, within);
    else if (name === 'blockquote') {
      const indent = within.role === 'quote' ? further : within.indent;
      this.children(element, { ...within, role: 'quote', indent });
    } else if (name === 'dd') this.children(element, { ...within, indent: further });
    else if (name === 'dt')
      this.children(element, { ...within, look: { ...within.look, ...BOLD } });
    else if (name === 'pre') this.pre(element, within);
    else if (/^h[1-6]$/.test(name))
      this.children(element, { ...within, role: `heading${name[1]}` as Role });
    else {
      const align = alignOf(element);
      if (align) this.begin(within, align);
      this.children(element, within);
    }
    this.end();
  }

  /** Of code only what stands in it counts, with its line breaks but the last. */
  private pre(element: Element, within: Within): void {
    const text = plainOf(element).replace(/\n$/, '');
    this.begin({ ...within, role: 'code' });
    this.words = new Words(true);
    this.words.say(text, {});
  }

  private list(element: Element, within: Within): void {
    const start = Number(element.attribs['start'] ?? 1);
    const isNumbered = element.name === 'ol';
    let isFirst = true;
    for (const child of element.children) {
      if (child.type !== ElementType.Tag) continue;
      const starts = isNumbered && isFirst && start !== 1 && Number.isInteger(start) && start >= 0;
      this.entry = {
        list: isNumbered ? 'number' : 'bullet',
        ...(starts && start < 1e9 ? { start } : {}),
      };
      isFirst = false;
      const depth = Math.min(MOST_INDENT - 1, within.indent);
      this.children(child, { ...within, indent: depth + 1 });
      // An entry without words has its mark.
      if (this.entry) this.begin({ ...within, indent: depth + 1 });
      this.end();
    }
    this.entry = undefined;
  }

  private table(table: Element, within: Within): void {
    this.end();
    const rows: Cell[][] = [];
    let hasHead = false;
    const visit = (parent: ParentNode): void => {
      for (const child of parent.children) {
        if (child.type !== ElementType.Tag) continue;
        if (child.name === 'caption') this.paragraphs(child, within);
        else if (child.name !== 'tr') visit(child);
        else {
          const cells = child.children.filter(
            (cell): cell is Element =>
              cell.type === ElementType.Tag && (cell.name === 'td' || cell.name === 'th'),
          );
          if (cells.length === 0) continue;
          if (rows.length === 0) hasHead = cells.every(({ name }) => name === 'th');
          rows.push(cells.map(cellOf));
        }
      }
    };
    visit(table);
    this.end();
    if (rows.length > 0) this.blocks.push({ kind: 'table', hasHead, rows });
  }

  private formula(math: Element, within: Within): void {
    const formula = notationOf(math);
    if (formula === undefined) {
      this.children(math, within);
      return;
    }
    const isAlone = isOnItsOwn(math);
    if (isAlone) this.begin(within, 'center');
    this.say(FORMULA, { ...within, look: { ...within.look, formula } });
    if (isAlone) this.end();
  }

  /** Those that cannot be had are told by their words, and lead to where they are. */
  private picture(element: Element, within: Within): void {
    const { attribs } = element;
    const known = this.pictures(attribs['src'] ?? '');
    if (known) {
      const align = this.open?.align ?? alignOf(element);
      this.end();
      this.blocks.push(pictureOf(element, known, within.look.link, align));
      return;
    }
    const address = addressSchema.safeParse(attribs['src']);
    const words = attribs['alt']?.trim() || (address.success ? address.data : '');
    const look = address.success ? { ...within.look, link: address.data } : within.look;
    if (words) this.say(words, { ...within, look });
  }

  private say(text: string, within: Within): void {
    if (!this.open) {
      if (!within.isPre && /^\s*$/.test(text)) return;
      this.begin(within);
    }
    this.words.say(text, within.look, within.isPre);
  }

  private begin({ role, indent }: Within, align?: Alignment): void {
    this.end();
    const { entry } = this;
    this.entry = undefined;
    const own = entry ? indent - 1 : indent;
    this.open = {
      ...(role ? { role } : {}),
      ...(own > 0 ? { indent: own } : {}),
      ...entry,
      ...(align ? { align } : {}),
    };
  }

  private end(): void {
    if (!this.open) return;
    const runs = this.words.done();
    const isEntry = this.open.list !== undefined;
    if (runs.length > 0 || isEntry || this.open.role === 'code')
      this.blocks.push({ kind: 'paragraph', ...asCheck(this.open, runs) });
    this.open = undefined;
    this.words = new Words(false);
  }
}

/** An entry that begins with a box to be ticked is one of a check list (GitHub Flavored Markdown, 5.3). */
function asCheck(
  open: Omit<TextParagraph, 'kind' | 'runs'>,
  runs: Run[],
): Omit<TextParagraph, 'kind'> {
  const mark = /^\[([ xX])\]\s+/.exec(runs[0]?.text ?? '');
  if (open.list === undefined || !mark) return { ...open, runs };
  const { start: _start, ...rest } = open;
  const text = runs[0].text.slice(mark[0].length);
  return {
    ...rest,
    list: 'check',
    ...(mark[1] === ' ' ? {} : { isDone: true }),
    runs: text ? [{ ...runs[0], text }, ...runs.slice(1)] : runs.slice(1),
  };
}
