import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { RouterLink } from '@angular/router';
import type { HungKeyword } from '@stylet/core/api';
import { writingsAmong, type Writing } from '@stylet/core/document';
import { unite } from '@stylet/core/geometry';
import { Api } from '../api/api';
import { troubleOf, type Trouble } from '../api/problem';
import { WritingPicture } from '../desk/platform/paper/writing-picture';
import { boundsOfAnnotation } from '../desk/platform/paper/drawing';
import { groupsOf } from './keyword-groups';

/** All keywords of the library, and where they hang. */
@Component({
  selector: 'stylet-keywords',
  imports: [MatButtonModule, MatIconModule, RouterLink, WritingPicture],
  templateUrl: './keywords.html',
  styleUrl: './keywords.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Keywords {
  private readonly api = inject(Api);
  private readonly keywords = signal<readonly HungKeyword[] | undefined>(undefined);
  protected readonly trouble = signal<Trouble | undefined>(undefined);
  protected readonly wanted = signal('');
  protected readonly isThere = computed(() => this.keywords() !== undefined);
  protected readonly isNone = computed(() => this.keywords()?.length === 0);
  protected readonly groups = computed(() => groupsOf(this.keywords() ?? [], this.wanted()));

  constructor() {
    this.load();
  }

  protected load(): void {
    this.trouble.set(undefined);
    this.api.keywords().subscribe({
      next: (keywords) => this.keywords.set(keywords),
      error: (error: unknown) => this.trouble.set(troubleOf(error)),
    });
  }

  /** The handwriting that stands for a keyword. */
  protected faceOf({ face }: HungKeyword): Writing | undefined {
    const [first, ...others] = writingsAmong(face, boundsOfAnnotation);
    if (!first) return undefined;
    return { annotations: face, box: others.reduce((box, w) => unite(box, w.box), first.box) };
  }

  protected placeOf({ place }: HungKeyword): Record<string, string | number> {
    return { page: place.pageId, x: place.x ?? 0, y: place.y ?? 0 };
  }
}
