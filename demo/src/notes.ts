import type { PictureFacts, StyletDocument } from '@stylet/core/api';
import {
  newId,
  orderAbove,
  type Annotation,
  type Effect,
  type NoteState,
} from '@stylet/core/document';
import type { Point } from '@stylet/core/geometry';
import { samplesOf, samplesToBase64, type Instrument } from '@stylet/core/ink';
import { toPoints } from '@stylet/core/paper';
import type { Line, TextRange } from '@stylet/core/text';
import { beachProfile, gaugePhoto } from './pictures/index';
import {
  arrow,
  calmHand,
  line,
  pathsOfText,
  ring,
  waves,
  write,
  type Typeface,
} from './stylus/index';

const INK = { ironGall: '#22304a', madder: '#b3324b', ultramarine: '#2f4fb5' } as const;

interface Pen {
  readonly instrument: Instrument;
  readonly color: string;
  readonly width: number;
}

const fineliner = (color: string): Pen => ({
  instrument: 'fineliner',
  color,
  width: toPoints(0.45),
});
const nib = (color: string): Pen => ({ instrument: 'nib', color, width: toPoints(0.6) });

/** Builds the annotations of the demo documents, stroke by stroke, with the simulated stylus. */
export class Notes {
  readonly effects: Effect[] = [];
  private order: string | undefined;
  private seed = 1;
  private last: Annotation | undefined;
  /** What is replied to. */
  private said: Annotation | undefined;
  private written: { pageId: string; ids: string[]; at: Point } | undefined;

  constructor(
    private readonly document: StyletDocument,
    private readonly author: string,
    private readonly at: string,
  ) {}

  /** Handwriting on a page (counted from 1): baseline from (x, y) in page space. */
  text(
    page: number,
    words: string,
    x: number,
    y: number,
    size: number,
    pen = fineliner(INK.ironGall),
    typeface: Typeface = 'EMSFelix',
  ): this {
    const before = this.effects.length;
    this.draw(page, pathsOfText(words, { x, y, size, typeface }), pen);
    const ids = this.effects
      .slice(before)
      .flatMap((effect) => (effect.type === 'annotation.add' ? effect.annotation.id : []));
    const pageId = this.document.pages[page - 1].id;
    this.written = { pageId, ids, at: { x, y: y - size } };
    return this;
  }

  /** Hangs a keyword on what was written last. */
  keyword(word: string): this {
    const { pageId, ids, at } = this.written!;
    this.effects.push({
      type: 'landmark.add',
      landmark: {
        kind: 'keyword',
        id: newId(),
        place: { pageId, ...at },
        word,
        annotationIds: ids,
        created: this.at,
      },
    });
    return this;
  }

  bookmark(page: number, title: string): this {
    const place = { pageId: this.document.pages[page - 1].id };
    this.effects.push({
      type: 'landmark.add',
      landmark: { kind: 'bookmark', id: newId(), place, title, created: this.at },
    });
    return this;
  }

  draw(page: number, paths: readonly (readonly Point[])[], pen: Pen): this {
    for (const samples of write(paths, { ...calmHand, seed: this.seed++ }))
      this.add({
        ...this.common(page, pen.color),
        kind: 'ink',
        instrument: pen.instrument,
        width: pen.width,
        smoothing: 0.3,
        samples: samplesToBase64(samplesOf(samples)),
      });
    return this;
  }

  highlight(page: number, color: string, range: TextRange): this {
    this.add({ ...this.common(page, color), kind: 'highlight', ...range });
    this.said = this.last;
    return this;
  }

  /** A note at (x, y) in page space, by one of those who review. */
  note(page: number, words: string, x: number, y: number, author: string, color: string): this {
    this.add({
      ...this.common(page, color),
      author,
      kind: 'note',
      at: { x, y },
      paragraphs: [{ runs: [{ text: words }] }],
    });
    this.said = this.last;
    return this;
  }

  /** What somebody says to the note or the mark before, or to what was said of that; or what they set it to. */
  reply(words: string, author: string, state?: NoteState): this {
    const to = (this.said ?? this.last)!;
    const { color: _, ...common } = this.common(1, '');
    this.add({
      ...common,
      pageId: to.pageId,
      author,
      kind: 'reply',
      to: to.id,
      paragraphs: [{ runs: [{ text: words }] }],
      ...(state ? { state } : {}),
    });
    return this;
  }

  /** A picture that the server has, its top left at (x, y) in page space, so many points wide. */
  picture(
    page: number,
    facts: PictureFacts,
    contents: string,
    x: number,
    y: number,
    width: number,
  ) {
    const height = (width * facts.height) / facts.width;
    const { color: _, ...common } = this.common(page, '');
    this.add({
      ...common,
      ...facts,
      kind: 'picture',
      contents,
      transform: [width, 0, 0, height, x, y],
    });
    return this;
  }

  private common(page: number, color: string) {
    this.order = orderAbove(this.order);
    return {
      id: newId(),
      pageId: this.document.pages[page - 1].id,
      order: this.order,
      color,
      opacity: 1,
      author: this.author,
      created: this.at,
      modified: this.at,
    };
  }

  private add(annotation: Annotation): void {
    this.last = annotation;
    this.effects.push({ type: 'annotation.add', annotation });
  }
}

/** Finds words on a page and gives them as a range to mark. */
export type FindWords = (page: number, words: string) => Promise<TextRange>;

/** Puts a picture's file into the server. */
export type PutIn = (file: Uint8Array, name: string) => Promise<PictureFacts>;

/** What the student wrote on the slides. */
export async function writeOnDeck(notes: Notes, find: FindWords, putIn: PutIn): Promise<void> {
  const shoaling = 16;
  const transect = 22;
  const photo = await putIn(await gaugePhoto(), 'Tide gauge.jpg');
  const profile = await putIn(beachProfile(), 'Beach profile.svg');
  notes
    .picture(transect, photo, 'Tide gauge.jpg', 66, 386, 168)
    .picture(transect, profile, 'Beach profile.svg', 420, 404, 250)
    .text(transect, 'gauge at low water, 06:40', 252, 420, 21)
    .keyword('tide gauge')
    .draw(transect, arrow({ x: 250, y: 430 }, { x: 118, y: 462 }), fineliner(INK.ironGall))
    .text(transect, 'lost 0.6 m in one storm', 476, 428, 21, nib(INK.madder))
    .keyword('storm erosion')
    .bookmark(transect, 'For the report');
  notes
    .highlight(shoaling, '#ffe27a', await find(shoaling, 'feels the bed'))
    .highlight(shoaling, '#ffe27a', await find(shoaling, 'and slows down.'))
    .highlight(shoaling, '#f9c0cb', await find(shoaling, 'its height must rise'))
    .text(shoaling, 'c = sqrt(g d) in shallow water', 62, 410, 27, nib(INK.ultramarine))
    .draw(shoaling, [line({ x: 60, y: 420 }, { x: 350, y: 418 })], fineliner(INK.ultramarine))
    .text(shoaling, 'd 4 m: c about 6.3 m/s, check with field data', 84, 462, 23)
    .draw(shoaling, arrow({ x: 58, y: 456 }, { x: 78, y: 456 }, 6), fineliner(INK.ironGall))
    .text(shoaling, 'slope matters! steep = plunging', 408, 420, 24, nib(INK.madder))
    .draw(shoaling, arrow({ x: 520, y: 398 }, { x: 600, y: 296 }), nib(INK.madder))
    .text(4, 'ask: whose swell is this?', 420, 120, 25, nib(INK.madder))
    // Round the waves of the figure.
    .draw(4, [ring({ x: 515, y: 229 }, 112, 38)], fineliner(INK.ultramarine))
    .text(17, 'headland: energy bends in', 400, 420, 24, nib(INK.ultramarine))
    .draw(1, [waves({ x: 64, y: 296 }, 300, 10, 6)], nib(INK.madder));
}

/** What the reader marked in the handbook. */
export async function writeInHandbook(notes: Notes, find: FindWords): Promise<void> {
  const lines = await find(16, '');
  notes
    .highlight(16, '#bde8b2', lines)
    .text(16, 'try this on transect B', 250, 60, 22, nib(INK.madder))
    .keyword('transect B');
}

/** The reviewer's marks on the paper. */
export async function writeOnPaper(notes: Notes, find: FindWords): Promise<void> {
  const [nerissa, oswin, ilse] = ['Nerissa', 'Oswin', 'Ilse'];
  notes
    .highlight(1, '#ffe27a', await find(1, 'Repeat the levelling from the fixed mark'))
    .reply('Say how often, and in which weather.', oswin)
    .reply('Twice a season, after storms. I will add it.', nerissa)
    .reply('Accepted', oswin, 'accepted')
    .note(1, 'A map of the transects would help here.', 40, 330, ilse, '#bde8b2')
    .reply('Figure 2 has one; refer to it.', oswin)
    .note(1, 'Units: metres a year throughout, please.', 300, 560, oswin, '#b9ddf7')
    .reply('Completed', nerissa, 'completed')
    .note(2, 'Is the grain size from the crest or from the lee?', 300, 300, ilse, '#bde8b2')
    .text(1, 'which survey?', 452, 78, 20, nib(INK.madder))
    .keyword('storm erosion')
    .draw(1, [ringRound(await find(1, 'barchan dune'))], fineliner(INK.madder))
    .draw(1, [under(await find(1, 'fixed mark'))], nib(INK.madder));
}

/** Room between words and what is drawn round them, in points. */
const ROOM = { x: 9, y: 4 };

/** A ring round words, which touches none of them. */
function ringRound({ quads: [[x0, y0, x1, , , y1]] }: TextRange): Point[] {
  const [rx, ry] = [(x1 - x0) / 2, (y1 - y0) / 2];
  const middle = { x: (x0 + x1) / 2, y: (y0 + y1) / 2 };
  return ring(middle, rx + ROOM.x, Math.SQRT2 * ry + ROOM.y);
}

/** A line just below words. */
function under({ quads: [[x0, , x1, , , y1]] }: TextRange): Point[] {
  return line({ x: x0 - 2, y: y1 + 1 }, { x: x1 + 2, y: y1 + 0.5 });
}

/** The first words found, or, for none asked, the first whole line of body text. */
export function rangeOf(lines: readonly Line[], words: string): TextRange | undefined {
  const wanted = words === '' ? undefined : words.split(' ');
  for (const { words: onLine, box } of lines) {
    const texts = onLine.map(({ text }) => text);
    const at = wanted
      ? texts.findIndex((_, i) => wanted.every((word, k) => texts[i + k] === word))
      : texts.length > 5
        ? 0
        : -1;
    if (at < 0) continue;
    const part = onLine.slice(at, at + (wanted?.length ?? texts.length));
    const [x0, x1] = [part[0].box.x0, part[part.length - 1].box.x1];
    return {
      quads: [[x0, box.y0, x1, box.y0, x0, box.y1, x1, box.y1]],
      contents: part.map(({ text }) => text).join(' '),
    };
  }
  return undefined;
}
