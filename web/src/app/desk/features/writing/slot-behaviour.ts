import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatSelectModule } from '@angular/material/select';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatSliderModule } from '@angular/material/slider';
import type { KitSlot } from '@stylet/core/api';
import type { Blend } from '@stylet/core/document';
import { styleDefaults } from '@stylet/core/ink';
import { blendOf } from '@stylet/core/document';

/** How a slot's instrument behaves: what there is to set depends on its kind. */
@Component({
  selector: 'stylet-slot-behaviour',
  imports: [MatFormFieldModule, MatSelectModule, MatCheckboxModule, MatSliderModule],
  templateUrl: './slot-behaviour.html',
  styleUrl: '../../platform/kit/card.scss',
  styles: `
    :host {
      background: none;
      box-shadow: none;
      max-height: none;
      overflow: visible;
      padding: 0;
      gap: 2px;
      width: auto;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SlotBehaviour {
  readonly slot = input.required<KitSlot>();
  readonly changed = output<Partial<KitSlot>>();

  protected readonly isHighlighter = computed(() => this.slot().instrument === 'highlighter');
  protected readonly sensitivity = computed(
    () => this.slot().sensitivity ?? styleDefaults.sensitivity,
  );
  protected readonly angle = computed(() => this.slot().angle ?? styleDefaults.angle);
  protected readonly end = computed(() => this.slot().end ?? styleDefaults.end);
  protected readonly blend = computed(() => blendOf(this.slot()));
  protected readonly straightens = computed(() => this.slot().straightens !== false);

  protected readonly smoothings = [
    { value: 0, words: 'off' },
    { value: 0.3, words: 'light' },
    { value: 0.6, words: 'medium' },
    { value: 1, words: 'strong' },
  ] as const;

  protected setStraightens(straightens: boolean): void {
    // Only a way that is followed can cross itself.
    this.changed.emit({ straightens, freeform: !straightens });
  }

  protected setBlend(blend: string): void {
    this.changed.emit({ blend: blend as Blend });
  }
}
