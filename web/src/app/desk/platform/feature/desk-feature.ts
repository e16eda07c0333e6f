import { InjectionToken, type Provider } from '@angular/core';
import type { Page } from '@stylet/core/api';
import type { Annotation } from '@stylet/core/document';
import type { Point } from '@stylet/core/geometry';
import type { Remains } from '../paper/remains';
import type { Arrival } from './arrival';
import type { PageMark, PageMenuAction, SelectionAction, SnipAction, WordAction } from './actions';
import type { CommandEntry, HelpRow } from './commands';
import type { Inject } from './inject';
import type { OverlayEntry, OnPageEntry, OnStripEntry } from './parts';
import type { Sides } from './sides';
import type { AidEntry, EdgeFinder, StrokeMeanings, ToolEntry } from './tools';

/**
 * What a feature brings to the desk. Frame and features know each other by this alone: a feature is its folder and one
 * line in `desk/features.ts`.
 */
export interface DeskFeature {
  readonly id: string;
  /** Live as long as the desk. */
  readonly providers?: readonly Provider[];
  /** Run when the desk opens. */
  readonly starts?: Inject<void>;
  /** Pictures of its buttons, as SVG, by name. */
  readonly icons?: Readonly<Record<string, string>>;
  /** What the pen can be. */
  readonly tools?: readonly ToolEntry[];
  /** What is switched on beside the tool in hand. */
  readonly aids?: readonly AidEntry[];
  /** What lies on a page, over its ink. */
  readonly onPages?: readonly OnPageEntry[];
  /** What lies on the strip of pages, and moves with them. */
  readonly onStrip?: readonly OnStripEntry[];
  /** Bars, windows and cards over and beside the pages. */
  readonly overlays?: readonly OverlayEntry[];
  /** Rows of the help sheet, of keys that are not commands of the desk. */
  readonly help?: readonly HelpRow[];
  /** Keys, buttons, entries of menus and rows of the help sheet. */
  readonly commands?: readonly CommandEntry[];
  readonly pageMenu?: readonly PageMenuAction[];
  readonly selectionActions?: readonly SelectionAction[];
  readonly wordActions?: readonly WordAction[];
  readonly snipActions?: readonly SnipAction[];
  /** Places to be seen on the Map and the page board. */
  readonly marks?: Inject<() => readonly PageMark[]>;
  /** What a page shows instead of some of its annotations. */
  readonly instead?: Inject<(pageId: string) => Remains | undefined>;
  /** Hears of each tap on a page in Read. */
  readonly tapped?: Inject<(page: Page, at: Point) => void>;
  /** Hears of each press on a page in Write, before its tool does. */
  readonly pressed?: Inject<() => void>;
  /** Hears of the element that scrolls the pages, until what it returns is called. */
  readonly listens?: Inject<(strip: HTMLElement) => () => void>;
  /** Hears of annotations that somebody has gone to, in a list or among what was found. */
  readonly goneTo?: Inject<(annotations: readonly Annotation[]) => void>;
  /** Hears by what address one has come. */
  readonly arrived?: Inject<(arrival: Arrival) => void>;
  /** What dragging a side of what is selected does instead of stretching it. */
  readonly sides?: Inject<() => Sides | undefined>;
  /** Edges that a pen follows. */
  readonly edges?: Inject<EdgeFinder>;
  /** What strokes may mean besides ink. */
  readonly meanings?: Inject<StrokeMeanings>;
}

export const DESK_FEATURES = new InjectionToken<readonly DeskFeature[]>('features of the desk');
