import { HttpClient } from '@angular/common/http';
import { Injectable, inject, signal } from '@angular/core';
import { bodyOfBox, roomInBox, type TextBox } from '@stylet/core/document';
import { MATHEMATICS, type Body, type FaceId } from '@stylet/core/typed';
import type { Engine, TextLayout, Typesetter, facesIn } from '@stylet/core/typesetting';
import { firstValueFrom } from 'rxjs';
import { troubleOf } from '../../../api/problem';

/** What could not be had is asked for again after so many ms. */
const ASKED_AGAIN = 5000;

type Formulas = typeof import('@stylet/core/formulas');

interface Ready {
  readonly engine: Engine;
  readonly typesetter: Typesetter;
  readonly facesIn: typeof facesIn;
}

/** Sets typed text, with fonts that are fetched when something is first set in them. */
@Injectable({ providedIn: 'root' })
export class Typesetting {
  private readonly http = inject(HttpClient);
  private ready: Ready | undefined;
  private mathematics: Formulas | undefined;
  private starting: Promise<Ready> | undefined;
  private readonly coming = new Map<FaceId, Promise<void>>();
  private readonly listeners = new Set<() => void>();
  private readonly known = new WeakMap<TextBox, TextLayout>();
  /** Why text could not be shown. */
  readonly trouble = signal<string | undefined>(undefined);

  /** Is told when what was asked for can be set; calling what it returns ends that. */
  onCome(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** The text of a box in lines; nothing until its fonts have come, which is then told. */
  layoutOf(box: TextBox): TextLayout | undefined {
    const known = this.known.get(box);
    if (known) return known;
    const layout = this.layout(bodyOfBox(box), roomInBox(box));
    if (layout) this.known.set(box, layout);
    return layout;
  }

  /** A body in lines that are so wide, or as wide as it is; nothing until its fonts have come, which is then told. */
  layout(body: Body, width?: number): TextLayout | undefined {
    if (this.ready && this.missing(this.ready, body).length === 0)
      return this.ready.typesetter.layout(body, width);
    void this.told(() => this.prepare(body));
    return undefined;
  }

  /** Tells when something has come, or is to be asked for again. */
  private async told(coming: () => Promise<unknown>): Promise<void> {
    try {
      await coming();
      this.listeners.forEach((listener) => listener());
    } catch (error) {
      this.trouble.set(troubleOf(error).title);
      setTimeout(() => this.listeners.forEach((listener) => listener()), ASKED_AGAIN);
    }
  }

  /** What sets text in these faces; nothing until they have come, which is then told. */
  typesetter(faces: Iterable<FaceId>): Typesetter | undefined {
    const missing = this.ready && [...faces].filter((face) => !this.ready!.engine.has(face));
    if (missing?.length === 0) return this.ready!.typesetter;
    void this.told(async () => {
      const set = await (this.starting ??= this.start());
      await Promise.all([...faces].map((face) => set.engine.has(face) || this.load(set, face)));
    });
    return undefined;
  }

  /** Has all that a body is set in; throws Problem where that cannot be had. */
  async prepare(body: Body): Promise<Ready> {
    const set = await (this.starting ??= this.start());
    await Promise.all(this.missing(set, body).map((face) => this.load(set, face)));
    return set;
  }

  get engine(): Engine | undefined {
    return this.ready?.engine;
  }

  private missing({ engine, facesIn: faces }: Ready, body: Body): FaceId[] {
    return [...faces(body)].filter((face) => !engine.has(face));
  }

  private async start(): Promise<Ready> {
    try {
      const [{ Engine, Typesetter, facesIn }, wasm] = await Promise.all([
        import('@stylet/core/typesetting'),
        this.fetched('shaper.wasm'),
      ]);
      const engine = await Engine.of(wasm);
      return (this.ready = { engine, typesetter: new Typesetter(engine), facesIn });
    } catch (error) {
      this.starting = undefined;
      throw error;
    }
  }

  /** What sets formulas; throws Problem where it cannot be had. */
  async formulas(): Promise<Formulas> {
    this.mathematics ??= await import('@stylet/core/formulas');
    return this.mathematics;
  }

  /** The same, once it has come. */
  get formulasNow(): Formulas | undefined {
    return this.mathematics;
  }

  private load({ engine }: Ready, face: FaceId): Promise<void> {
    let coming = this.coming.get(face);
    if (!coming) {
      const took =
        face === MATHEMATICS
          ? this.formulas().then(({ formulaOrSource }) => engine.addFormulas(formulaOrSource))
          : this.fetched(`${face}.ttf`).then((file) => engine.add(face, file));
      coming = took.finally(() => this.coming.delete(face));
      this.coming.set(face, coming);
    }
    return coming;
  }

  private async fetched(name: string): Promise<Uint8Array> {
    const file = this.http.get(`/fonts/${name}`, { responseType: 'arraybuffer' });
    return new Uint8Array(await firstValueFrom(file));
  }
}
