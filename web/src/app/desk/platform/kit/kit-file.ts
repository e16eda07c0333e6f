import { Injectable, inject } from '@angular/core';
import { kitSchema } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { saveJson } from '../../../storage/save-file';
import { kitActions, kitFeature } from './kit.reducer';

const NAME = 'Stylet kit';

/** Kits as files, to be kept, lent and brought elsewhere. */
@Injectable({ providedIn: 'root' })
export class KitFile {
  private readonly store = inject(Store);
  private readonly kit = this.store.selectSignal(kitFeature.selectKit);

  /** Hands the kit over as a download. */
  save(): void {
    saveJson(NAME, this.kit());
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
