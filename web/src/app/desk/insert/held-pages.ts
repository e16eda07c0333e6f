import { Injectable, signal, type OnDestroy } from '@angular/core';
import { idSchema } from '@stylet/core/document';
import { z } from 'zod';
import { readKept } from '../../settings/kept';

const KEY = 'stylet.pages';

const heldSchema = z.object({
  documentId: idSchema,
  title: z.string(),
  ids: z.array(idSchema).min(1),
  isCut: z.boolean(),
});

/** Pages that were cut or copied, and where. */
export type Held = z.infer<typeof heldSchema>;

/** The pages that were cut or copied last, in any window of this browser. */
@Injectable({ providedIn: 'root' })
export class HeldPages implements OnDestroy {
  private readonly held = signal(read());
  readonly pages = this.held.asReadonly();

  constructor() {
    addEventListener('storage', this.changed);
  }

  hold(held: Held): void {
    this.held.set(held);
    localStorage.setItem(KEY, JSON.stringify(held));
  }

  ngOnDestroy(): void {
    removeEventListener('storage', this.changed);
  }

  private readonly changed = ({ key }: StorageEvent): void => {
    if (key === KEY || key === null) this.held.set(read());
  };
}

function read(): Held | undefined {
  const kept = heldSchema.safeParse(readKept(localStorage, KEY));
  return kept.success ? kept.data : undefined;
}
