import type { Type } from '@angular/core';
import type { KitSlot, Page } from '@stylet/core/api';
import type { Point } from '@stylet/core/geometry';
import type { Edge } from '@stylet/core/guides';
import type { Sample } from '@stylet/core/ink';
import type { Effect } from '@stylet/core/document';
import type { Gesture } from '../input/gesture';
import type { GesturePage } from '../input/gesture-page';
import type { Meaning } from '../input/meaning';
import type { LiveSurface } from '../paper/live-canvas';
import type { Inject } from './inject';

/** A press of the pen on a page in Write. */
export interface Press {
  /** Page space. */
  readonly at: Point;
  /** Whether it adds to what is selected. */
  readonly adds: boolean;
  readonly page: GesturePage;
}

/** What a pen does with a tool in hand. */
export interface Tool {
  /** The gesture that a press begins. */
  begin(press: Press): Gesture | undefined;
  /** A gesture of it has ended. */
  ended?(): void;
  /** The diameter of a ring that shows at the pointer, in CSS pixels. */
  ring?(pointsPerPixel: number): number | undefined;
  /** Whether it needs the words of the page. */
  readsText?(): boolean;
  /** What the next tap does, in words, where that does not show. */
  hint?(): string | undefined;
}

/** A tool has a place in the rail. */
export interface ToolEntry {
  readonly id: string;
  /** Whether its places in the rail are the slots of the kit. */
  readonly isInSlots?: boolean;
  readonly name: string;
  readonly icon: string;
  /** A letter that takes it. */
  readonly key?: string;
  readonly help?: string;
  /** A CSS cursor. */
  readonly cursor?: string;
  /** What can be set of it, which closes itself by `OPEN_CARD`; loaded when it is opened. */
  readonly card?: () => Promise<Type<unknown>>;
  /** Whether the card opens as soon as the tool is taken. */
  readonly opensCard?: boolean;
  readonly tool: Inject<Tool>;
}

export interface Aid {
  isOn(): boolean;
  toggle(): void;
}

export interface AidEntry {
  readonly id: string;
  readonly name: string;
  readonly icon: string;
  readonly key: string;
  readonly aid: Inject<Aid>;
}

/** Finds the edge that a pen follows, if it comes down near one. */
export interface EdgeFinder {
  /** Page space. */
  edgeFor(page: Page, at: Point): Edge | undefined;
  /** How long the line along it is, in points; undefined once it is drawn. */
  drawn(length: number | undefined): void;
}

/** What every new annotation of a gesture needs to know. */
export interface Placement {
  readonly pageId: string;
  readonly order: string;
  readonly author: string;
}

/** The stroke that may mean something else. */
export interface StrokeUnderWay {
  readonly slot: KitSlot;
  readonly placement: Placement;
  readonly live: LiveSurface;
  readonly page: GesturePage;
  /** What adds it as ink after all. */
  asInk(samples: readonly Sample[]): Effect[];
}

/** What else than ink a stroke may be meant as. */
export interface Meanings {
  /**
   * What a stroke held at its end may mean, likeliest first: whoever holds on gets the next one. None
   * when it is nothing but ink.
   */
  held(samples: readonly Sample[]): readonly Meaning[];
  /** What it means while it is still being drawn. */
  drawn(samples: readonly Sample[]): Meaning | undefined;
}

export type StrokeMeanings = (stroke: StrokeUnderWay) => Meanings;
