import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { addressSchema } from '@stylet/core/typed';

/** Where words lead. */
@Component({
  selector: 'stylet-link-field',
  template: `
    <label>
      <span>Leads to</span>
      <input
        #field
        type="url"
        placeholder="https://"
        [value]="address() ?? ''"
        [attr.aria-invalid]="isWrong()"
        (keydown)="$event.key !== 'Escape' && $event.stopPropagation()"
        (change)="set(field.value)"
      />
    </label>
    @if (isWrong()) {
      <span role="alert">Begin it with https:// or mailto:</span>
    }
  `,
  styleUrl: './paragraph-pane.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LinkField {
  readonly address = input<string | undefined>();
  /** Nothing where they lead nowhere any more. */
  readonly changed = output<string | undefined>();
  protected readonly isWrong = signal(false);

  protected set(written: string): void {
    const address = written.trim();
    // Whoever writes a name leaves out how it is reached.
    const whole = /^[\w-]+(\.[\w-]+)+(\/|$)/.test(address) ? `https://${address}` : address;
    const parsed = addressSchema.safeParse(whole);
    this.isWrong.set(address !== '' && !parsed.success);
    if (address === '') this.changed.emit(undefined);
    else if (parsed.success) this.changed.emit(parsed.data);
  }
}
