import type { Look, Run } from '../typed/index';

/** Words of one paragraph; spaces in a row count as one, at both ends as none, but where they are kept. */
export class Words {
  private readonly runs: { text: string; look: Partial<Look> }[] = [];
  private endsOpen = false;

  constructor(private readonly isKept: boolean) {}

  say(text: string, look: Partial<Look>, isKept = this.isKept): void {
    let words = text;
    if (!isKept) {
      words = text.replace(/[ \t\r\n\f]+/g, ' ');
      if (!this.endsOpen) words = words.replace(/^ /, '');
    } else if (words === '\n') this.trim();
    if (!words) return;
    this.endsOpen = isKept ? !/\s$/.test(words) : !words.endsWith(' ');
    const last = this.runs.at(-1);
    if (last && sameLook(last.look, look)) last.text += words;
    else this.runs.push({ text: words, look });
  }

  done(): Run[] {
    if (!this.isKept) {
      this.trim();
      while (this.runs.at(-1)?.text.endsWith('\n')) {
        const last = this.runs[this.runs.length - 1];
        last.text = last.text.replace(/[ \n]+$/, '');
        this.trim();
      }
    }
    return this.runs.map(({ text, look }) =>
      Object.keys(look).length > 0 ? { text, look } : { text },
    );
  }

  private trim(): void {
    for (let last = this.runs.at(-1); last; last = this.runs.at(-1)) {
      last.text = last.text.replace(/ +$/, '');
      if (last.text) return;
      this.runs.pop();
    }
  }
}

const sameLook = (a: Partial<Look>, b: Partial<Look>): boolean =>
  JSON.stringify(a) === JSON.stringify(b);
