import { FORMULA, toldRun, type Paragraph, type Run } from '../../typed/index';

/** Paragraphs as other programs have them, with the formulas that were there before where these tell of them still. */
export function withFormulas(
  read: readonly Paragraph[],
  before: readonly Paragraph[],
): readonly Paragraph[] {
  const formulas = new Map(
    before.flatMap(({ runs }) =>
      runs.flatMap(({ look }) =>
        look?.formula === undefined
          ? []
          : [[toldRun({ text: FORMULA, look }), look.formula] as const],
      ),
    ),
  );
  if (formulas.size === 0) return read;
  // The longest first: one could be within another.
  const told = [...formulas.keys()].sort((a, b) => b.length - a.length);
  return read.map((paragraph) => ({
    ...paragraph,
    runs: paragraph.runs.flatMap((run) => parted(run, told, formulas)),
  }));
}

function parted(run: Run, told: readonly string[], formulas: ReadonlyMap<string, string>): Run[] {
  const runs: Run[] = [];
  let words = '';
  const endWords = (): void => {
    if (words) runs.push({ ...run, text: words });
    words = '';
  };
  for (let at = 0; at < run.text.length;) {
    const found = told.find((one) => run.text.startsWith(one, at));
    if (found === undefined) {
      words += run.text[at++];
      continue;
    }
    endWords();
    runs.push({ text: FORMULA, look: { ...run.look, formula: formulas.get(found)! } });
    at += found.length;
  }
  endWords();
  return runs;
}
