import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import { bodyOfBox, styleOfBox, styledFields, type SavedTextStyle } from '@stylet/core/document';
import { families, familyFacts, faceOf, type Family, type Look } from '@stylet/core/typed';
import { ColorChoice } from '../../platform/kit/color-choice';
import { highlighterColors, inkColors, nameOfColor } from '../../platform/kit/palettes';
import type { TextInHand } from './text-in-hand';
import { ColorRow } from './color-row';
import { StylePreview } from './style-preview';
import { TextStyleKit } from './text-style-kit';
import { FormulaButton } from '../../platform/typed/formula-button';
import { LinkField } from '../../platform/typed/link-field';
import { ParagraphPane } from '../../platform/typed/paragraph-pane';
import { fontChoices, markChoices, type MarkKey } from '../../platform/typed/text-choices';
import { TypedFonts } from '../../platform/typed/typed-fonts';
import { Typing } from './typing';

const SIZES = [8, 9, 10, 11, 12, 14, 16, 18, 24, 32, 48] as const;
/** What the text that is typed looks like, and the styles that were saved. */
@Component({
  selector: 'stylet-text-bar',
  imports: [
    ColorChoice,
    ColorRow,
    FormulaButton,
    LinkField,
    MatButtonModule,
    MatIconModule,
    MatMenuModule,
    MatTooltipModule,
    ParagraphPane,
    StylePreview,
  ],
  templateUrl: './text-bar.html',
  styleUrl: './text-bar.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    role: 'toolbar',
    'aria-label': 'Typed text',
    // Taking hold of a button must not take the caret out of the text.
    '(mousedown)': 'keepCaret($event)',
  },
})
export class TextBar {
  private readonly typing = inject(Typing);
  protected readonly kit = inject(TextStyleKit);
  protected readonly families = fontChoices;
  protected readonly sizes = SIZES;
  protected readonly marks = markChoices;
  protected readonly inks = inkColors;
  protected readonly washes = highlighterColors;
  protected readonly nameOfColor = nameOfColor;
  /** It shows as long as there is one. */
  protected readonly box = computed(() => this.typing.box()!);
  protected readonly fontName = computed(() => {
    const { font } = this.editor.look();
    return font ? familyFacts[font].name : 'Several';
  });
  protected readonly color = computed(() => this.editor.look().color ?? this.box().color);

  constructor() {
    inject(TypedFonts).need(families.map((family) => faceOf(family, false, false).id));
  }

  /** It shows as long as there is one. */
  protected get editor(): TextInHand {
    return this.typing.editor()!;
  }

  protected keepCaret(event: MouseEvent): void {
    if (!(event.target instanceof HTMLInputElement)) event.preventDefault();
  }

  /** A menu has closed: its focus goes back to the text, once it has let go of it. */
  protected back(): void {
    setTimeout(() => this.typing.editor()?.takeKeyboard());
  }

  protected setFont(font: Family): void {
    this.set({ font });
  }

  protected setSize(text: string): void {
    const size = Number(text.replace(',', '.'));
    if (size >= 1 && size <= 400) this.set({ size });
    else this.editor.focus();
  }

  /** Of selected words; of all of them where none are selected and none are written yet. */
  protected set(look: Partial<Look>): void {
    const box = this.box();
    const isEmpty = box.paragraphs.every(({ runs }) => runs.length === 0);
    if (isEmpty) {
      const { color, ...letters } = { ...bodyOfBox(box).look, ...look };
      this.typing.change({ color, look: letters });
      this.editor.lay();
      this.editor.focus();
    } else this.editor.setLook(look);
  }

  protected isOn(key: MarkKey): boolean {
    return this.editor.look()[key] === true;
  }

  protected setScript(script: Look['script']): void {
    const now = this.editor.look().script;
    this.editor.setLook({ script: now === script ? undefined : script });
  }

  /** What leads somewhere is to be seen as such; how, is up to who writes. */
  protected link(link: string | undefined): void {
    this.editor.setLook({ link, underline: link === undefined ? undefined : true });
  }

  protected background(background: string | undefined): void {
    const { background: _before, ...frame } = this.box().frame;
    this.frame(background ? { ...frame, background } : frame);
  }

  protected border(color: string | undefined): void {
    const { border, ...frame } = this.box().frame;
    this.frame(color ? { ...frame, border: { color, width: border?.width ?? 1 } } : frame);
  }

  protected padding(padding: number): void {
    this.frame({ ...this.box().frame, padding });
  }

  private frame(frame: ReturnType<typeof this.box>['frame']): void {
    this.typing.change({ frame });
    this.editor.lay();
    this.editor.focus();
  }

  protected apply({ style }: SavedTextStyle): void {
    const fields = styledFields(this.box(), style);
    this.editor.replaceAll(fields.paragraphs);
    this.typing.change(fields);
    this.kit.keep(style);
    this.editor.lay();
    this.editor.focus();
  }

  protected save(): void {
    const style = styleOfBox(this.box());
    const { font, size } = style.look;
    this.kit.save(style, `${familyFacts[font].name} ${size}`);
  }

  protected done(): void {
    this.typing.end();
  }
}
