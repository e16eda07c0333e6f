import { Injectable, computed, signal } from '@angular/core';
import { idSchema } from '@stylet/core/document';
import { z } from 'zod';
import { keepOwn, readOwn } from '../../../storage/own-storage';

const KEY = 'stylet.tabs';
/** Closed documents that can be opened again from the list. */
const MOST_CLOSED = 10;

const tabSchema = z.object({ id: idSchema, title: z.string() });
const keptSchema = z.object({ open: z.array(tabSchema), closed: z.array(tabSchema) });

/** A document that is open in this window. */
export type Tab = z.infer<typeof tabSchema>;
type Kept = z.infer<typeof keptSchema>;

/** The documents that are open in this window, in order, and those closed last. A reload keeps them. */
@Injectable({ providedIn: 'root' })
export class OpenTabs {
  private readonly kept = signal(read());
  readonly tabs = computed(() => this.kept().open);
  /** The latest first. */
  readonly closed = computed(() => this.kept().closed);

  private shown: string | undefined;

  /** A document is shown: it has a tab from now on, beside the one that was shown before. */
  show(tab: Tab): void {
    const { open, closed } = this.kept();
    const from = this.shown;
    this.shown = tab.id;
    const at = open.findIndex(({ id }) => id === tab.id);
    if (at >= 0 && open[at].title === tab.title) return;
    const beside = open.findIndex(({ id }) => id === from);
    const next =
      at >= 0 ? open.with(at, tab) : open.toSpliced(beside < 0 ? open.length : beside + 1, 0, tab);
    this.keep({ open: next, closed: closed.filter(({ id }) => id !== tab.id) });
  }

  /** Closes a document; the one that is shown then, if it was this one: its neighbour, if there is one. */
  close(id: string): Tab | undefined {
    const { open, closed } = this.kept();
    const at = open.findIndex((tab) => tab.id === id);
    if (at < 0) return undefined;
    const rest = open.toSpliced(at, 1);
    this.keep({ open: rest, closed: [open[at], ...closed].slice(0, MOST_CLOSED) });
    return rest[Math.min(at, rest.length - 1)];
  }

  move(from: number, to: number): void {
    const { open, closed } = this.kept();
    const tab = open[from];
    if (!tab || to < 0 || to >= open.length) return;
    this.keep({ open: open.toSpliced(from, 1).toSpliced(to, 0, tab), closed });
  }

  /** A document is not there any more. */
  forget(id: string): void {
    const { open, closed } = this.kept();
    const others = (tabs: readonly Tab[]): Tab[] => tabs.filter((tab) => tab.id !== id);
    this.keep({ open: others(open), closed: others(closed) });
  }

  private keep(kept: Kept): void {
    this.kept.set(kept);
    keepOwn(KEY, kept);
  }
}

function read(): Kept {
  const kept = keptSchema.safeParse(readOwn(KEY));
  return kept.success ? kept.data : { open: [], closed: [] };
}
