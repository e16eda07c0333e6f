import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { correction, generate } from 'lean-qr';

/** Modules of quiet round the picture (ISO/IEC 18004, 5.3.8). */
const QUIET = 4;

/** A text as a QR code: dark on light, also on dark pages, as cameras expect it. */
@Component({
  selector: 'stylet-qr-picture',
  template: `
    <svg role="img" aria-label="QR code of the address" [attr.viewBox]="picture().box">
      <rect width="100%" height="100%" fill="#fff" />
      <path [attr.d]="picture().path" fill="#000" shape-rendering="crispEdges" />
    </svg>
  `,
  styles: ':host { display: block; }',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QrPicture {
  readonly text = input.required<string>();
  protected readonly picture = computed(() => {
    const code = generate(this.text(), { minCorrectionLevel: correction.M });
    const side = code.size + 2 * QUIET;
    let path = '';
    for (let y = 0; y < code.size; y++)
      for (let x = 0; x < code.size; x++)
        if (code.get(x, y)) path += `M${x + QUIET} ${y + QUIET}h1v1h-1z`;
    return { path, box: `0 0 ${side} ${side}` };
  });
}
