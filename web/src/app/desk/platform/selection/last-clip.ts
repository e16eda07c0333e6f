import { Injectable, signal, type OnDestroy } from '@angular/core';
import { clipSchema, type Clip } from '@stylet/core/selection';
import { accountChannel } from '../../../storage/account';

const CHANNEL = 'stylet.clip';

/** What was copied last, in any window of this browser: it outlives the document it came from. */
@Injectable({ providedIn: 'root' })
export class LastClip implements OnDestroy {
  private readonly held = signal<Clip | undefined>(undefined);
  readonly clip = this.held.asReadonly();
  private readonly channel = accountChannel(CHANNEL);

  constructor() {
    this.channel.addEventListener('message', this.heard);
    // A window that is opened later asks those that are there.
    this.channel.postMessage('asks');
  }

  hold(clip: Clip): void {
    this.held.set(clip);
    this.channel.postMessage(clip);
  }

  ngOnDestroy(): void {
    this.channel.close();
  }

  private readonly heard = ({ data }: MessageEvent<unknown>): void => {
    const clip = this.held();
    if (data === 'asks') {
      if (clip) this.channel.postMessage(clip);
      return;
    }
    // A window of another version may say something else.
    const heard = clipSchema.safeParse(data);
    if (heard.success) this.held.set(heard.data);
  };
}
