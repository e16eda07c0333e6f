import { Injectable, inject, signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import type { DocumentText } from '@stylet/core/api';
import { newId } from '@stylet/core/document';
import { isSame } from '@stylet/core/same';
import { merged, type TypedText } from '@stylet/core/typed-pages';
import { Api } from '../../../api/api';
import { troubleOf, type Trouble } from '../../../api/problem';
import { Author } from '../../../settings/author';
import { BrowserDb } from '../../../storage/browser-db';

/** A text is sent when nothing was typed for so many ms, or after so many at the latest; and again after so many. */
const RESTED = 1200;
const LATEST = 6000;
/** A long text takes long to be set: that much of the time goes to it at the most. */
const SHARE = 1 / 4;
/** What took long once, on a server that has just been started, need not again: nobody waits longer than so many ms. */
const LONGEST_REST = 8000;
const AGAIN = 5000;
/** Pages that are lacking come after so many. */
const SOON = 200;
/** What pages say of a text is looked into after so many: the answer to what was sent comes with it. */
const HEARD = 1000;

/** Whom saving works for. */
export interface Saved {
  /** The text as it is now. */
  text(): TypedText;
  /** Others have gone on with it too: this is both. `isContested`: something of it is there twice. */
  take(text: TypedText, isContested: boolean): void;
  /** Its pages are of this file now. */
  source(digest: string): void;
}

/** Sends what has become of a text, and keeps it here until the server has it. */
@Injectable({ providedIn: 'root' })
export class TextSaving {
  private readonly api = inject(Api);
  private readonly db = inject(BrowserDb);
  private readonly author = inject(Author);
  private id = '';
  private base: DocumentText | undefined;
  private of: Saved | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private hearing: ReturnType<typeof setTimeout> | undefined;
  /** What pages have said since it was looked into. */
  private said = new Set<string>();
  private merging: Promise<void> | undefined;
  private first = 0;
  /** How long it took last, in ms. */
  private took = 0;
  private sending: Promise<void> | undefined;
  private isChanged = false;
  /** What was sent without an answer: the server may have it. */
  private tried: TypedText[] = [];
  readonly state = signal<'saved' | 'waiting' | 'away'>('saved');
  /** Why the server does not take it. */
  readonly trouble = signal<Trouble | undefined>(undefined);

  /** The text of a document, with what was changed here and never sent. */
  async open(id: string, of: Saved): Promise<TypedText> {
    const now = await firstValueFrom(this.api.text(id));
    const waits = await (await this.db.open()).get('texts', id);
    Object.assign(this, { id, of, base: now, isChanged: false, tried: [] });
    this.trouble.set(undefined);
    this.state.set('saved');
    if (!waits) return now.text;
    this.changed();
    return merged(waits.base.text, now.text, waits.text, newId).text;
  }

  /** The file that the text is in, as far as is known. */
  sourceNow(): string | undefined {
    return this.base?.source;
  }

  /** The text is another one now; `atOnce`: its pages are too few or too many. */
  changed(atOnce = false): void {
    this.isChanged = true;
    if (this.state() === 'saved') this.state.set('waiting');
    const now = Date.now();
    if (!this.timer) this.first = now;
    clearTimeout(this.timer);
    const rests = Math.min(LONGEST_REST, Math.max(RESTED, this.took / SHARE));
    const latest = this.first + Math.max(LATEST, 2 * rests) - now;
    const wait = atOnce ? SOON : Math.max(0, Math.min(rests, latest));
    this.timer = setTimeout(() => void this.send(), wait);
  }

  /** Its pages are of another file now, which somebody else may have made. */
  heard(source: string): void {
    this.said.add(source);
    this.hearing ??= setTimeout(() => this.lookInto(), HEARD);
  }

  /** What was said while it was waited may have come from here, but what was said last need not have. */
  private lookInto(): void {
    const { said } = this;
    this.hearing = undefined;
    this.said = new Set();
    if (!this.of) return;
    if (this.sending || this.merging) {
      said.forEach((source) => this.heard(source));
      return;
    }
    said.delete(this.base?.source ?? '');
    // What is to be sent meets it anyway.
    if (said.size > 0 && !this.isChanged)
      this.merge().catch((error: unknown) => console.warn(error));
  }

  /** Nobody edits it any more; what the server does not have stays here. */
  close(): void {
    clearTimeout(this.timer);
    clearTimeout(this.hearing);
    this.timer = this.hearing = undefined;
    this.said = new Set();
    this.of = undefined;
    this.id = '';
  }

  /** Sends what was not sent yet; settles when the server has it, or does not answer. */
  async flush(): Promise<void> {
    await this.sending;
    if (this.isChanged) await this.send();
  }

  private async send(): Promise<void> {
    clearTimeout(this.timer);
    this.timer = undefined;
    if (this.sending) {
      await this.sending;
      if (this.timer) return;
    }
    this.sending = this.sent().finally(() => (this.sending = undefined));
    await this.sending;
  }

  private async sent(): Promise<void> {
    const { id, base, of } = this;
    if (!base || !of || !this.isChanged) return;
    const text = of.text();
    this.isChanged = false;
    try {
      await (await this.db.open()).put('texts', { documentId: id, base, text });
      const change = { base: base.source, text, author: this.author.name() };
      const began = Date.now();
      const { source } = await firstValueFrom(this.api.setText(id, change));
      this.took = Date.now() - began;
      if (this.id !== id) return;
      this.base = { source, text };
      this.tried = [];
      of.source(source);
      this.trouble.set(undefined);
      if (this.isChanged) return;
      this.state.set('saved');
      await (await this.db.open()).delete('texts', id);
    } catch (error) {
      this.isChanged = true;
      this.tried.push(text);
      await this.failed(troubleOf(error), id);
    }
  }

  private async failed(trouble: Trouble, id: string): Promise<void> {
    if (this.id !== id) return;
    if (trouble.code === 'text-changed') {
      await this.merge().catch(() => this.changed());
      return;
    }
    this.trouble.set(trouble);
    this.state.set('away');
    this.timer ??= setTimeout(() => void this.send(), AGAIN);
  }

  /** Somebody has gone on with the text; or the server has what was sent last, and its answer was lost. */
  private merge(): Promise<void> {
    // One after another: what was read first could be answered last.
    return (this.merging ??= this.merged().finally(() => (this.merging = undefined)));
  }

  private async merged(): Promise<void> {
    const { id, of, base } = this;
    const now = await firstValueFrom(this.api.text(id));
    if (!of || !base || this.id !== id) return;
    const isOurs = this.tried.some(({ blocks }) => isSame(blocks, now.text.blocks));
    const both = isOurs
      ? { text: of.text(), isContested: false }
      : merged(base.text, now.text, of.text(), newId);
    this.base = now;
    this.tried = [];
    of.source(now.source);
    if (!isOurs && !isSame(both.text, of.text())) of.take(both.text, both.isContested);
    // Sent for nothing it would be another file, of which others hear, who would do the same.
    if (!isSame(both.text, now.text)) {
      this.changed();
      return;
    }
    this.isChanged = false;
    this.state.set('saved');
    await (await this.db.open()).delete('texts', id);
  }
}
