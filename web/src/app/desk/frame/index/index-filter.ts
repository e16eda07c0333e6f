import { Injectable, signal } from '@angular/core';
import { z } from 'zod';
import { readKept } from '../../../settings/kept';
import { unrestricted, type FacetName, type IndexRestriction } from './index-restriction';
import { indexKinds, type IndexKind } from './index-rows';
import { accountStorage } from '../../../storage/account';

const KEY = 'stylet.index';

/** What the kinds of rows are called. */
export const kindNames: Readonly<Record<IndexKind, string>> = {
  outline: 'Outline',
  bookmark: 'Bookmarks',
  keyword: 'Keywords',
  ink: 'Ink',
  highlights: 'Highlights',
  shapes: 'Shapes',
  pictures: 'Pictures',
  text: 'Typed text',
  links: 'Links',
  notes: 'Notes',
  others: 'Other marks',
};

const usual: readonly IndexKind[] = ['outline', 'bookmark', 'keyword'];

/** Which kinds of rows the Index shows. Kept in this browser. */
@Injectable({ providedIn: 'root' })
export class IndexFilter {
  private readonly chosen = signal<ReadonlySet<IndexKind>>(new Set(read()));
  readonly kinds = this.chosen.asReadonly();
  /** What of those rows: not kept, for the next document has other colours and authors. */
  readonly restriction = signal<IndexRestriction>(unrestricted);

  toggle(kind: IndexKind): void {
    const next = new Set(this.kinds());
    if (!next.delete(kind)) next.add(kind);
    this.set(next);
  }

  show(kind: IndexKind): void {
    this.set(new Set([...this.kinds(), kind]));
  }

  toggleIn(set: FacetName, value: string): void {
    this.restriction.update((before) => {
      const next = new Set(before[set]);
      if (!next.delete(value)) next.add(value);
      return { ...before, [set]: next };
    });
  }

  private set(kinds: ReadonlySet<IndexKind>): void {
    this.chosen.set(kinds);
    accountStorage.setItem(KEY, JSON.stringify([...kinds]));
  }
}

function read(): readonly IndexKind[] {
  const kept = z.array(z.enum(indexKinds)).safeParse(readKept(accountStorage, KEY));
  return kept.success ? kept.data : usual;
}
