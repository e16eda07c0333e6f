import type { Annotation, Effect } from '@stylet/core/document';
import type { Sample } from '@stylet/core/ink';
import { nothingErased } from '../../platform/paper/remains';
import type { Meaning } from '../../platform/input/meaning';
import type { GesturePage } from '../../platform/input/gesture-page';
import type { Refusable } from '../../platform/input/shorthand-notice';

/** How much shows of what will be gone. */
const FADED = 0.22;

/** A scratch that strikes out what is under it, which fades until the pen is lifted. */
export class ScratchMeaning implements Meaning {
  private readonly samples: Sample[];
  private targets: readonly Annotation[];

  constructor(
    samples: readonly Sample[],
    private readonly find: (samples: readonly Sample[]) => readonly Annotation[],
    private readonly target: GesturePage,
    private readonly refusable: (samples: readonly Sample[]) => Refusable,
  ) {
    this.samples = [...samples];
    this.targets = find(samples);
  }

  show(): void {
    const gone = new Map(this.targets.map((annotation) => [annotation.id, annotation]));
    const left = this.targets.map((a) => ({ ...a, opacity: a.opacity * FADED }));
    this.target.show({ gone, left });
  }

  move(samples: readonly Sample[]): boolean {
    this.samples.push(...samples);
    const targets = this.find(this.samples);
    if (targets.length === 0) return false;
    if (targets.length !== this.targets.length) {
      this.targets = targets;
      this.show();
    }
    return true;
  }

  end(): Effect[] {
    const count = this.targets.length;
    const back = this.targets.map((annotation): Effect => ({ type: 'annotation.add', annotation }));
    this.refusable(this.samples).tell(count === 1 ? 'Struck out.' : `Struck out ${count}.`, back);
    return this.targets.map(({ id, pageId }) => ({
      type: 'annotation.remove',
      pageId,
      annotationId: id,
    }));
  }

  hide(): void {
    this.target.show(nothingErased);
  }
}
