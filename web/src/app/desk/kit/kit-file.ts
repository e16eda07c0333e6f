import { Injectable, inject } from '@angular/core';
import { kitSchema } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { kitActions, kitFeature } from './kit.reducer';

const NAME = 'Stylet kit.json';

/** Kits as files, to be kept, lent and brought elsewhere. */
@Injectable({ providedIn: 'root' })
export class KitFile {
  private readonly store = inject(Store);
  private readonly kit = this.store.selectSignal(kitFeature.selectKit);

  /** Hands the kit over as a download. */
  save(): void {
    const text = JSON.stringify(this.kit(), undefined, 2);
    const url = URL.createObjectURL(new Blob([text], { type: 'application/json' }));
    const link = document.createElement('a');
    link.href = url;
    link.download = NAME;
    link.click();
    // The download has taken hold of the address by then.
    setTimeout(() => URL.revokeObjectURL(url), 10_000);
  }

  /** Puts a file's kit in place of the present one. Returns what there is to say about it. */
  async read(file: Blob): Promise<string> {
    let content: unknown;
    try {
      content = JSON.parse(await file.text());
    } catch {
      return 'This file is no kit. Choose one that was saved with “Save kit”.';
    }
    const kit = kitSchema.safeParse(content);
    if (!kit.success) {
      const [{ path, message }] = kit.error.issues;
      return `This file is no kit that can be used (${path.join('.') || 'file'}: ${message}). Your kit is as it was.`;
    }
    this.store.dispatch(kitActions.kitRead({ kit: kit.data }));
    return `Kit of ${kit.data.slots.length} read.`;
  }
}
