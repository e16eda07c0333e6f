import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { Numbering, markerOf, toldRun, type Paragraph, type Run } from '@stylet/core/typed';
import { cssOfLook, cssOfParagraph } from './rich-looks';

/** The words of a note with their looks. */
@Component({
  selector: 'stylet-note-words',
  template: `
    @for (line of lines(); track $index) {
      <p [style]="line.style" [attr.dir]="line.dir" [attr.data-marker]="line.marker">
        @for (run of line.runs; track $index) {
          @if (run.link; as link) {
            <a [href]="link" target="_blank" rel="noreferrer noopener" [style]="run.style">{{
              run.text
            }}</a>
          } @else {
            <span [style]="run.style">{{ run.text }}</span>
          }
        }
      </p>
    }
  `,
  styleUrl: './note-words.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NoteWords {
  readonly paragraphs = input.required<readonly Paragraph[]>();

  protected readonly lines = computed(() => {
    const numbering = new Numbering();
    return this.paragraphs().map((paragraph) => {
      const number = numbering.next(paragraph);
      return {
        style: cssOfParagraph(paragraph),
        dir: paragraph.direction ?? 'auto',
        marker: paragraph.list ? markerOf(paragraph, number) : null,
        runs: paragraph.runs.map(shown),
      };
    });
  });
}

const shown = (run: Run): { text: string; link?: string; style: Record<string, string> } => ({
  text: toldRun(run),
  style: cssOfLook(run.look),
  ...(run.look?.link ? { link: run.look.link } : {}),
});
