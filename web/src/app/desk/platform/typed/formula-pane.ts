import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  afterRenderEffect,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { displayed, isDisplayed, undisplayed } from '@stylet/core/typed';
import { troubleOf } from '../../../api/problem';
import { fillFormula } from './text-painting';
import { Typesetting } from './typesetting';

/** What can be put into the notation with a tap: what it is called, and the notation, with marks round what is to be written over. */
const PARTS = [
  { name: 'Fraction', source: '\\frac{‹a›}{b}' },
  { name: 'Root', source: '\\sqrt{‹x›}' },
  { name: 'Power', source: 'x^{‹2›}' },
  { name: 'Index', source: 'x_{‹i›}' },
  { name: 'Sum', source: '\\sum_{i=1}^{n} ‹x_i›' },
  { name: 'Integral', source: '\\int_{a}^{b} ‹f(x)›\\,dx' },
  { name: 'Vector', source: '\\vec{‹v›}' },
  { name: 'Matrix', source: '\\begin{pmatrix} ‹a› & b \\\\ c & d \\end{pmatrix}' },
  { name: 'Chemistry', source: '\\ce{‹H2O›}' },
] as const;
/** How large the preview is, and the room around it, in CSS pixels. */
const SIZE = 22;
const ROOM = 10;

/** Writes a formula in TeX notation, and shows what becomes of it. */
@Component({
  selector: 'stylet-formula-pane',
  imports: [MatButtonModule],
  templateUrl: './formula-pane.html',
  styleUrl: './formula-pane.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'group', 'aria-label': 'Formula' },
})
export class FormulaPane {
  private readonly typesetting = inject(Typesetting);
  private readonly field = viewChild.required<ElementRef<HTMLTextAreaElement>>('field');
  private readonly canvas = viewChild<ElementRef<HTMLCanvasElement>>('canvas');
  /** The notation it begins with; empty for a new formula. */
  readonly source = input.required<string>();
  /** What is to be put into the text. */
  readonly put = output<string>();
  protected readonly parts = PARTS;
  protected readonly written = linkedSignal(() => undisplayed(this.source()));
  /** Set as large as formulas on lines of their own are. */
  protected readonly isLarge = linkedSignal(() => isDisplayed(this.source()));
  private readonly formulas = signal(this.typesetting.formulasNow);
  private readonly away = signal<string | undefined>(undefined);
  protected readonly whole = computed(() => {
    const words = this.written().trim();
    return this.isLarge() ? displayed(words) : words;
  });
  private readonly made = computed(() => {
    const formulas = this.formulas();
    return this.written().trim() === '' ? undefined : formulas?.formulaOf(this.whole());
  });
  protected readonly formula = computed(() => this.made()?.formula);
  protected readonly trouble = computed(() => {
    const made = this.made();
    return this.away() ?? (made && 'trouble' in made ? made.trouble : undefined);
  });

  constructor() {
    this.typesetting.formulas().then(
      (formulas) => this.formulas.set(formulas),
      (error: unknown) => this.away.set(troubleOf(error).title),
    );
    afterRenderEffect(() => this.draw());
  }

  /** Has the keyboard where the notation is written. */
  focus(): void {
    this.field().nativeElement.focus();
  }

  protected add({ source }: (typeof PARTS)[number]): void {
    const field = this.field().nativeElement;
    const from = field.selectionStart;
    const [before, over, after] = source.split(/[‹›]/);
    field.setRangeText(before + over + after, from, field.selectionEnd, 'end');
    this.written.set(field.value);
    field.setSelectionRange(from + before.length, from + before.length + over.length);
    field.focus();
  }

  protected done(): void {
    if (this.formula()) this.put.emit(this.whole());
  }

  private draw(): void {
    const [formula, canvas] = [this.formula(), this.canvas()?.nativeElement];
    if (!formula || !canvas) return;
    const { width, ascent, descent } = formula;
    const size = [width * SIZE + 2 * ROOM, (ascent + descent) * SIZE + 2 * ROOM].map(Math.ceil);
    const ratio = devicePixelRatio;
    [canvas.width, canvas.height] = size.map((side) => Math.ceil(side * ratio));
    [canvas.style.width, canvas.style.height] = size.map((side) => `${side}px`);
    const context = canvas.getContext('2d')!;
    context.fillStyle = getComputedStyle(canvas).color;
    context.setTransform(
      ratio * SIZE,
      0,
      0,
      ratio * SIZE,
      ratio * ROOM,
      ratio * (ROOM + ascent * SIZE),
    );
    fillFormula(context, formula);
  }
}
