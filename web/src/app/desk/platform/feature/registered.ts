import {
  Injectable,
  Injector,
  inject,
  runInInjectionContext,
  type Signal,
  computed,
} from '@angular/core';
import { MatIconRegistry } from '@angular/material/icon';
import { DomSanitizer } from '@angular/platform-browser';
import { triedAgain } from '../../../loading/tried-again';
import type { Page } from '@stylet/core/api';
import type { Annotation } from '@stylet/core/document';
import type { Point } from '@stylet/core/geometry';
import type { Sides } from './sides';
import type { Remains } from '../paper/remains';
import type { PageMark } from './actions';
import type { ButtonEntry, Command, CommandEntry, MenuEntry } from './commands';
import { DESK_FEATURES, type DeskFeature } from './desk-feature';
import type { Inject } from './inject';
import type { Arrival } from './arrival';
import type { Aid, AidEntry, EdgeFinder, StrokeMeanings, Tool, ToolEntry } from './tools';

type Lists = {
  [K in keyof DeskFeature]-?: NonNullable<DeskFeature[K]> extends readonly (infer E)[] ? E : never;
};
type Single = {
  [K in keyof DeskFeature]-?: NonNullable<DeskFeature[K]> extends Inject<infer T> ? T : never;
};

/** Where an entry is `{ id, shows: Inject<S> }`, `Made` by `shows`: `{ entry, shows: S }`. */
export type Made<E, P extends keyof E> = { readonly entry: E } & {
  readonly [Q in P]: E[Q] extends Inject<infer T> ? T : never;
};

export interface CommandInMenu {
  readonly id: string;
  readonly menu: MenuEntry;
  readonly command: Command;
}

export interface CommandOnButton {
  readonly id: string;
  readonly button: ButtonEntry;
  readonly command: Command;
}

/** What features have registered, for the frame and for whoever asks beyond his own feature. */
@Injectable()
export class Registered {
  private readonly features = inject(DESK_FEATURES);
  private readonly injector = inject(Injector);
  /** What was run already: once for each desk. */
  private readonly results = new Map<Inject<unknown>, unknown>();

  readonly tools: readonly ToolEntry[] = this.list('tools');
  readonly aids: readonly AidEntry[] = this.list('aids');
  readonly commands: readonly CommandEntry[] = this.list('commands');
  /** What was found, and whatever else is to be seen at a glance. */
  readonly marks: Signal<readonly PageMark[]> = computed(() =>
    this.each('marks').flatMap((marks) => marks()),
  );

  constructor() {
    const [icons, sanitizer] = [inject(MatIconRegistry), inject(DomSanitizer)];
    for (const feature of this.features)
      for (const [name, svg] of Object.entries(feature.icons ?? {}))
        // They ship with the program.
        icons.addSvgIconLiteral(name, sanitizer.bypassSecurityTrustHtml(svg));
  }

  /** All entries of a sort, in the order of the features. */
  list<K extends keyof Lists>(name: K): readonly Lists[K][] {
    return this.features.flatMap((feature) => (feature[name] ?? []) as readonly Lists[K][]);
  }

  /** The same, lower orders first where they have one, and with what a part of each comes to on this desk. */
  made<K extends keyof Lists, P extends keyof Lists[K] & string>(
    name: K,
    part: P,
  ): readonly Made<Lists[K], P>[] {
    const orderOf = (entry: object): number => ('order' in entry ? (entry.order as number) : 0);
    return [...this.list(name)]
      .sort((a, b) => orderOf(a as object) - orderOf(b as object))
      .map((entry) => {
        const made = this.get(entry[part] as Inject<unknown>);
        return { entry, [part]: made } as unknown as Made<Lists[K], P>;
      });
  }

  /** What an entry comes to on this desk. */
  get<T>(inject: Inject<T>): T {
    if (!this.results.has(inject))
      this.results.set(inject, runInInjectionContext(this.injector, inject));
    return this.results.get(inject) as T;
  }

  /** The commands that a menu shows, in its order. */
  menu(name: MenuEntry['in']): readonly CommandInMenu[] {
    return this.commands
      .flatMap((entry) =>
        entry.menu?.in === name
          ? [{ id: entry.id, menu: entry.menu, command: this.commandOf(entry) }]
          : [],
      )
      .sort((a, b) => a.menu.order - b.menu.order);
  }

  /** The commands with a button in the bar at the top, in its order. */
  buttons(): readonly CommandOnButton[] {
    return this.commands
      .flatMap((entry) =>
        entry.button
          ? [{ id: entry.id, button: entry.button, command: this.commandOf(entry) }]
          : [],
      )
      .sort((a, b) => a.button.order - b.button.order);
  }

  commandOf({ command }: CommandEntry): Command {
    return this.get(command);
  }

  toolOf(id: string): Tool | undefined {
    const entry = this.tools.find((tool) => tool.id === id);
    return entry && this.get(entry.tool);
  }

  aidOf({ aid }: AidEntry): Aid {
    return this.get(aid);
  }

  /** Has what is loaded when it is first shown at hand, so that nothing waits for it then. */
  async preload(signal: AbortSignal): Promise<void> {
    const parts = [...this.list('overlays'), ...this.list('onPages'), ...this.list('onStrip')];
    const loads = [
      ...parts.flatMap((part) => ('load' in part ? part.load : [])),
      ...this.tools.flatMap(({ card }) => card ?? []),
    ];
    await Promise.all(
      loads.map(
        (load) => triedAgain<unknown>(load, () => undefined, signal), // Told when it is shown.
      ),
    );
  }

  /** Begins all that runs as long as the desk. */
  start(): void {
    this.each('starts');
  }

  /** What dragging a side of what is selected does, where it is not stretched by that. */
  sidesOfSelection(): Sides | undefined {
    for (const sides of this.each('sides')) {
      const found = sides();
      if (found) return found;
    }
    return undefined;
  }

  insteadOn(pageId: string): Remains | undefined {
    for (const instead of this.each('instead')) {
      const remains = instead(pageId);
      if (remains) return remains;
    }
    return undefined;
  }

  tapped(page: Page, at: Point): void {
    for (const tapped of this.each('tapped')) tapped(page, at);
  }

  edges(): readonly EdgeFinder[] {
    return this.each('edges');
  }

  meanings(): readonly StrokeMeanings[] {
    return this.each('meanings');
  }

  pressed(): void {
    for (const pressed of this.each('pressed')) pressed();
  }

  goneTo(annotations: readonly Annotation[]): void {
    for (const goneTo of this.each('goneTo')) goneTo(annotations);
  }

  arrived(arrival: Arrival): void {
    for (const arrived of this.each('arrived')) arrived(arrival);
  }

  /** Has all listen on the strip of pages until the returned function is called. */
  listen(strip: HTMLElement): () => void {
    const stops = this.each('listens').map((listens) => listens(strip));
    return () => stops.forEach((stop) => stop());
  }

  private each<K extends keyof Single>(name: K): readonly Single[K][] {
    return this.features.flatMap((feature) => {
      const one = feature[name] as Inject<Single[K]> | undefined;
      return one ? [this.get(one)] : [];
    });
  }
}
