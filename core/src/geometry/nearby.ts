import Flatbush from 'flatbush';
import type { Box } from './box';

/** Finds those of many boxes that touch a box, without looking at each: a packed Hilbert R-tree. */
export class Nearby {
  private readonly tree: Flatbush | undefined;
  /** The place in the list of each box in the tree. */
  private readonly places: readonly number[];

  /** Boxes are told by their place in the list; those that are undefined are never found. */
  constructor(boxes: readonly (Box | undefined)[]) {
    this.places = boxes.flatMap((box, i) => (box ? [i] : []));
    if (this.places.length === 0) return;
    this.tree = new Flatbush(this.places.length);
    for (const box of boxes) if (box) this.tree.add(box.x0, box.y0, box.x1, box.y1);
    this.tree.finish();
  }

  /** Places in the list of the boxes that share at least a point with `box`, in no order. */
  find({ x0, y0, x1, y1 }: Box): number[] {
    return this.tree?.search(x0, y0, x1, y1).map((i) => this.places[i]) ?? [];
  }
}
