import { storableText } from '../bounds/index';

/** By what a document that comes is called: the better of the two, its file's name, or the title inside. */
export const namings = ['better', 'file', 'title'] as const;
export type Naming = (typeof namings)[number];

/** What programs and browsers call files that nobody has named (common practice, no source). */
const NOBODYS =
  /^(?:pasted text|download|document|untitled|unnamed|scan|file|paper|main|print|output|temp|article|final)[\s\d().-]*$/i;
/** Titles that programs leave behind: their own names for things, and names of files. */
const LEFTOVER =
  /^(?:untitled|title|document|presentation|slide) ?\d*$|^microsoft |^powerpoint |\.(?:docx?|pptx?|odt|odp|tex|dvi|ps|eps|indd|qxd|rtf|txt|pdf|xlsx?)$/i;

/** How files are called that can be brought in. */
export const BROUGHT_IN = /\.(?:pdf|md|markdown|txt|text|html?)$/i;

/** The name of a document that comes, and the one it could have as well. */
export interface Titles {
  readonly title: string;
  readonly otherTitle: string | null;
}

/**
 * How a document is called: as its file, for people know files by the names they gave them, unless nobody gave it one
 * and the title inside says more.
 */
export function titlesOf(filename: string, inside: string | undefined, naming: Naming): Titles {
  const name = tidy(
    nameOf(filename)
      .replace(BROUGHT_IN, '')
      .replace(/[_\s]+/g, ' '),
  );
  const title = tidy(inside ?? '');
  if (name === '' || title === '' || name === title)
    return { title: name || title || 'Untitled', otherTitle: null };
  const takesTitle = naming === 'title' || (naming === 'better' && isBetter(title, name));
  return takesTitle ? { title, otherTitle: name } : { title: name, otherTitle: title };
}

/** A file's name without where it lies, in whichever system. */
const nameOf = (path: string): string =>
  path.slice(Math.max(path.lastIndexOf('/'), path.lastIndexOf('\\')) + 1);

const tidy = (text: string): string => storableText(text.trim(), 300).trim();

function isBetter(title: string, name: string): boolean {
  const letters = title.replace(/[^\p{L}]/gu, '').length;
  return letters >= 4 && !LEFTOVER.test(title) && isNobodys(name);
}

/** Whether a name says nothing: a number of a catalogue, a digest, or what a program calls files. */
function isNobodys(name: string): boolean {
  if (NOBODYS.test(name) || /^[0-9a-f-]{16,}$/i.test(name)) return true;
  const letters = name.replace(/[^\p{L}]/gu, '').length;
  const figures = name.replace(/[^\p{N}]/gu, '').length;
  // No word of three letters, or mostly figures.
  return (
    !/\p{L}{3}|[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]/u.test(
      name,
    ) || figures > 2 * letters
  );
}
