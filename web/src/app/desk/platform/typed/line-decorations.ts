import type { TextLayout } from '@stylet/core/typesetting';
import type { Node } from 'prosemirror-model';
import { Decoration, DecorationSet } from 'prosemirror-view';

/**
 * Has the browser end the lines of a text where they were laid out to end, and set each as high and as far in as there: so
 * carets, what is selected and the browser's marks for spelling stand where the letters do.
 */
export function lineDecorations(doc: Node, { lines }: TextLayout): DecorationSet {
  const decorations: Decoration[] = [];
  const starts: number[] = [];
  doc.forEach((_, offset) => starts.push(offset + 1));
  let last = -1;
  lines.forEach((line, i) => {
    const isFirst = line.paragraph !== last;
    last = line.paragraph;
    const at = starts[line.paragraph] + line.from;
    const above = isFirst ? line.top - (i > 0 ? lines[i - 1].top + lines[i - 1].height : 0) : 0;
    const [text] = line.runs.filter(({ width }) => width > 0);
    const hangs = text ? Math.min(0, text.x - line.x) : 0;
    // What ends a line by itself needs no break before what follows.
    const isBroken = !isFirst && doc.textBetween(at - 1, at, undefined, '\n') !== '\n';
    const key = [isBroken, line.height, line.baseline - line.top, line.x + hangs, above].join(' ');
    decorations.push(
      Decoration.widget(
        at,
        () => startOf(isBroken, line.height, line.baseline - line.top, line.x + hangs, above),
        {
          side: -1,
          key,
          ignoreSelection: true,
        },
      ),
    );
    const stretch = line.runs.find((run) => run.stretch > 0)?.stretch;
    if (stretch)
      decorations.push(
        Decoration.inline(at, starts[line.paragraph] + line.to, {
          style: `word-spacing:${stretch}px`,
        }),
      );
  });
  return DecorationSet.create(doc, decorations);
}

/** What stands at the start of a line: a break, a strut that makes the line as high as it is, and the way in. */
export function startOf(
  isBroken: boolean,
  height: number,
  ascent: number,
  x: number,
  above: number,
): HTMLElement {
  const start = document.createElement('span');
  start.contentEditable = 'false';
  if (isBroken) start.append(document.createElement('br'));
  const strut = document.createElement('span');
  strut.style.cssText =
    `display:inline-block;width:${x}px;height:${height + above}px;` +
    `vertical-align:${ascent - height}px`;
  start.append(strut);
  return start;
}
