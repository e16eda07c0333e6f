import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { SavedTextStyle } from '@stylet/core/document';
import { cssFamily } from '../../platform/typed/typed-fonts';

/** The largest letters that a style is shown in, in CSS pixels. */
const LARGEST = 19;

/** A saved style by its name, in its own look. */
@Component({
  selector: 'stylet-style-preview',
  template: `<span [style]="style()">{{ saved().name }}</span>`,
  styles: `
    span {
      border-radius: 4px;
      display: inline-block;
      line-height: 1.3;
      max-width: 180px;
      overflow: hidden;
      padding: 1px 6px;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StylePreview {
  readonly saved = input.required<SavedTextStyle>();
  protected readonly style = computed(() => styleOfPreview(this.saved()));
}

/** How the name of a style is shown, in properties of CSS. */
export function styleOfPreview({
  style: { look, color, frame },
}: SavedTextStyle): Readonly<Record<string, string>> {
  const lines = [look.underline ? 'underline' : '', look.strike ? 'line-through' : ''];
  return {
    'font-family': cssFamily(look.font),
    'font-size': `${Math.min(LARGEST, Math.max(12, look.size))}px`,
    'font-weight': look.bold ? '700' : '400',
    'font-style': look.italic ? 'italic' : 'normal',
    'text-decoration': lines.filter(Boolean).join(' ') || 'none',
    color,
    // On paper, as it will be, also where all else is dark.
    background: frame.background ?? look.behind ?? '#ffffff',
    border: frame.border ? `1px solid ${frame.border.color}` : '1px solid transparent',
  };
}
