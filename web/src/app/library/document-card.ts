import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { DocumentSummary } from '@stylet/core/api';
import { Api } from '../api/api';
import { spokenDate } from './sorting';

const count = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

@Component({
  selector: 'stylet-document-card',
  imports: [RouterLink],
  template: `
    <a [routerLink]="['/documents', document().id]">
      <span class="cover"><img [src]="cover()" alt="" loading="lazy" /></span>
      <span class="title">{{ document().title }}</span>
      <span class="facts">{{ facts() }}</span>
    </a>
  `,
  styleUrl: './document-card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DocumentCard {
  readonly document = input.required<DocumentSummary>();
  /** The share of its pages whose words can be found; none when all can. */
  readonly read = input<number>();
  private readonly api = inject(Api);

  protected readonly cover = computed(() => this.api.coverUrl(this.document()));
  protected readonly facts = computed(() => {
    const { pageCount, annotationCount, modified, repair } = this.document();
    return [
      count(pageCount, 'page'),
      ...(annotationCount > 0 ? [count(annotationCount, 'annotation')] : []),
      ...(repair === 'none' ? [] : [repair]),
      spokenDate(modified, new Date()),
      ...(this.read() === undefined ? [] : [`${Math.floor(100 * this.read()!)} % read for Find`]),
    ].join(' · ');
  });
}
