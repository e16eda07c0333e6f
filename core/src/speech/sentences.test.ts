import fc from 'fast-check';
import { linesOf, type Word } from '../text/index';
import { sentenceWith, sentencesOf, wordAtPlace } from './index';

/** Words of a line of 10 pt type, a space of 3 pt between them. */
function line(text: string, y: number, x = 0): Word[] {
  let at = x;
  return text.split(' ').map((part) => {
    const box = { x0: at, y0: y, x1: at + part.length * 5, y1: y + 10 };
    at = box.x1 + 3;
    return { text: part, box, angle: 0, size: 10, bold: false };
  });
}
const page = (...texts: string[]) => linesOf(texts.flatMap((text, i) => line(text, i * 12)));
const spoken = (...texts: string[]): string[] =>
  sentencesOf(page(...texts)).map(({ text }) => text);

test('sentences go on over lines and end where UAX #29 ends them', () => {
  // UAX #29, table 4, examples of places that end a sentence and of those that do not.
  expect(
    spoken('He said “Are you going?” John shook his head.', '“Are you going?” John asked.'),
  ).toEqual([
    'He said “Are you going?”',
    'John shook his head.',
    '“Are you going?”',
    'John asked.',
  ]);
  expect(spoken('It rose by 3.4 m in an hour. Then it fell', 'again. We waited.')).toEqual([
    'It rose by 3.4 m in an hour.',
    'Then it fell again.',
    'We waited.',
  ]);
});

test('a full stop that shortens a word ends nothing', () => {
  expect(
    spoken('See Fig. 3 and Eq. 4 by Dr. Ebb, e.g. Table A. It shows all that is here.'),
  ).toEqual(['See Fig. 3 and Eq. 4 by Dr. Ebb, e.g. Table A. It shows all that is here.']);
  expect(spoken('We met at noon. No. 4 was there by then and it was late.')).toEqual([
    'We met at noon.',
    'No. 4 was there by then and it was late.',
  ]);
});

test('a word that is divided at the end of a line is spoken as one, and is two on the page', () => {
  const [sentence] = sentencesOf(
    page('Above it lies the upper fore-', 'shore where dunes grow on the sand.'),
  );
  expect(sentence.text).toBe('Above it lies the upper foreshore where dunes grow on the sand.');
  const word = wordAtPlace(sentence, sentence.text.indexOf('foreshore') + 2);
  expect(word.pageWords).toEqual([5, 6]);
  expect(sentence.text.slice(word.start, word.end)).toBe('foreshore');
});

test('a heading is a sentence of its own; rules are not spoken', () => {
  const lines = linesOf([
    ...line('Two tides', 0),
    ...line('* * *', 60),
    ...line('The tide turns at six. It', 120),
    ...line('takes its time as it does.', 132),
  ]);
  expect(sentencesOf(lines).map(({ text }) => text)).toEqual([
    'Two tides',
    'The tide turns at six.',
    'It takes its time as it does.',
  ]);
});

test('every word of the page is spoken once, in order, where it stands in its sentence', () => {
  const words = fc.array(fc.stringMatching(/^[a-zA-Z]{1,8}[.?!,-]?$/), {
    minLength: 1,
    maxLength: 8,
  });
  fc.assert(
    fc.property(fc.array(words, { minLength: 1, maxLength: 6 }), (texts) => {
      const lines = page(...texts.map((parts) => parts.join(' ')));
      const sentences = sentencesOf(lines);
      const numbers = sentences.flatMap((sentence) =>
        sentence.words.flatMap(({ pageWords }) => pageWords),
      );
      const all = lines.flatMap((one) => one.words);
      expect(numbers).toEqual(all.map((_, i) => i));
      sentences.forEach((sentence, i) => {
        for (const { start, end, pageWords } of sentence.words) {
          const whole = pageWords.map((word) => all[word].text);
          const joined = whole.map((text, at) =>
            at < whole.length - 1 ? text.slice(0, -1) : text,
          );
          expect(sentence.text.slice(start, end)).toBe(joined.join(''));
          expect(wordAtPlace(sentence, start).pageWords).toEqual(pageWords);
          for (const word of pageWords) expect(sentenceWith(sentences, word)).toBe(i);
        }
      });
    }),
  );
});
