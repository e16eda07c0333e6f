import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { Place } from '@stylet/core/document';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { boundsOfAnnotation } from '../../platform/paper/drawing';
import { ViewState } from '../../platform/view/view-state';
import { TextSelection } from '../../platform/selection/text-selection';
import { LandmarkActions } from '../../platform/landmarks/landmark-actions';

/** Makes entries of the outline and keywords of what is selected, words or handwriting, or of a page. */
@Injectable()
export class LandmarksFrom {
  private readonly actions = inject(LandmarkActions);
  private readonly text = inject(TextSelection);
  private readonly annotations = inject(AnnotationSelection);
  private readonly view = inject(ViewState);
  private readonly dialog = inject(MatDialog);
  private readonly snackBar = inject(MatSnackBar);

  /** Selected words become an entry's title. */
  entryFromText(): void {
    const found = this.selectedText();
    if (!found) return;
    const { title } = this.actions.addEntry(found.words, found.place);
    this.tell(`“${title}” is in the outline.`);
  }

  keywordFromText(): void {
    const found = this.selectedText();
    if (!found) return;
    this.actions.addKeyword(found.words, found.place);
    this.tell(`“${found.words}” is a keyword of this page.`);
  }

  /** Handwriting is asked what it says. */
  async entryFromInk(): Promise<void> {
    const place = this.placeOfInk();
    const words = await this.ask('Add to the outline', 'It leads to what is selected.', 'Title');
    if (place && words?.trim()) this.actions.addEntry(words, place);
  }

  /** The handwriting itself is the keyword's face; words help to find it. */
  async keywordFromInk(): Promise<void> {
    const place = this.placeOfInk();
    const ids = this.annotations.annotations().map(({ id }) => id);
    const hint = 'What is selected shows in the Index as it is. Words are found by search.';
    const words = await this.ask('Keyword', hint, 'Words, if you like');
    if (place && words !== undefined) this.actions.addKeyword(words, place, ids);
  }

  /** The page in view gets a keyword. */
  async keywordForPage(): Promise<void> {
    const page = this.view.pages()[this.view.currentPage()];
    const hint = `It hangs on page ${page?.label ?? ''} and leads there from the Index.`;
    const words = await this.ask('Keyword for this page', hint, 'Keyword');
    if (page && words?.trim()) this.actions.addKeyword(words, { pageId: page.id });
  }

  private async ask(title: string, hint: string, label: string): Promise<string | undefined> {
    const { askForWords } = await import('../../../dialogs/words-dialog');
    return askForWords(this.dialog, {
      title,
      hint,
      label,
      words: '',
      longest: 120,
      action: 'Add',
    });
  }

  private selectedText(): { words: string; place: Place } | undefined {
    const [first] = this.text.parts();
    if (!first) return undefined;
    const [x, y] = first.quads[0];
    return { words: this.text.contents(), place: { pageId: first.page.id, x, y } };
  }

  private placeOfInk(): Place | undefined {
    const pageId = this.annotations.pageId();
    const boxes = this.annotations.annotations().flatMap((a) => boundsOfAnnotation(a) ?? []);
    if (!pageId || boxes.length === 0) return undefined;
    return {
      pageId,
      x: Math.min(...boxes.map(({ x0 }) => x0)),
      y: Math.min(...boxes.map(({ y0 }) => y0)),
    };
  }

  private tell(message: string): void {
    this.snackBar.open(message, 'Close', { duration: 4000 });
  }
}
