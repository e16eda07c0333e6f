import { Injectable, signal } from '@angular/core';
import { idSchema, newId } from '@stylet/core/document';
import { z } from 'zod';
import { readKept } from '../settings/kept';
import { flows, type Flow } from './pane-messages';
import { windowStorage } from '../storage/account';

const KEY = 'stylet.panes';
export const MOST_PANES = 4;
/** No pane takes less than this share of what two have together. */
const LEAST = 0.15;

const paneSchema = z.object({ id: idSchema, documentId: idSchema });
const layoutSchema = z.object({
  flow: z.enum(flows),
  panes: z.array(paneSchema).max(MOST_PANES),
  /** How much room each has; they sum up to 1. */
  shares: z.array(z.number().positive()),
});

/** A part of the window with a desk of its own. */
export type Pane = z.infer<typeof paneSchema>;
type Kept = z.infer<typeof layoutSchema>;

const none: Kept = { flow: 'beside', panes: [], shares: [] };

/** The panes of this window and how they lie. A reload keeps them. */
@Injectable({ providedIn: 'root' })
export class PaneLayout {
  private readonly kept = signal<Kept>(read());
  readonly layout = this.kept.asReadonly();

  /** Divides the window between two documents; the same one may be in both. */
  begin(first: string, second: string, flow: Flow): void {
    const panes = [first, second].map((documentId) => ({ id: newId(), documentId }));
    this.keep({ flow, panes, shares: [0.5, 0.5] });
  }

  /** One more pane, after another one; false when there are as many as there may be. */
  add(documentId: string, after: string, flow: Flow): boolean {
    const { panes, flow: now } = this.kept();
    if (panes.length >= MOST_PANES) return false;
    const at = panes.findIndex(({ id }) => id === after) + 1;
    const next = panes.toSpliced(at, 0, { id: newId(), documentId });
    this.keep({ flow: panes.length < 2 ? flow : now, panes: next, shares: equal(next.length) });
    return true;
  }

  /** Takes a pane away; what is left. */
  close(id: string): readonly Pane[] {
    const { panes, ...rest } = this.kept();
    const left = panes.filter((pane) => pane.id !== id);
    this.keep({ ...rest, panes: left, shares: equal(left.length) });
    return left;
  }

  shows(id: string, documentId: string): void {
    const { panes, ...rest } = this.kept();
    if (panes.some((pane) => pane.id === id && pane.documentId !== documentId))
      this.keep({
        ...rest,
        panes: panes.map((pane) => (pane.id === id ? { ...pane, documentId } : pane)),
      });
  }

  lie(flow: Flow): void {
    this.keep({ ...this.kept(), flow });
  }

  /** Moves the edge between a pane and the next by a share of all. */
  moveEdge(index: number, by: number): void {
    const { shares } = this.kept();
    const both = shares[index] + shares[index + 1];
    const least = LEAST * both;
    const share = Math.min(both - least, Math.max(least, shares[index] + by));
    const next = shares.with(index, share).with(index + 1, both - share);
    this.keep({ ...this.kept(), shares: next });
  }

  private keep(kept: Kept): void {
    this.kept.set(kept);
    windowStorage.setItem(KEY, JSON.stringify(kept));
  }
}

const equal = (count: number): number[] => Array.from({ length: count }, () => 1 / count);

function read(): Kept {
  const kept = layoutSchema.safeParse(readKept(windowStorage, KEY));
  return kept.success && kept.data.shares.length === kept.data.panes.length ? kept.data : none;
}
