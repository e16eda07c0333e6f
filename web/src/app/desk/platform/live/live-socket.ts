import {
  LIVE_BEAT,
  LIVE_OTHER_VERSION,
  LIVE_PATH,
  LIVE_PROTOCOL,
  fromServerSchema,
  type FromServer,
  type FromWindow,
} from '@stylet/core/api';

/** Pauses before it is tried again, in ms: windows that lost the server together do not come back together. */
const SHORTEST_WAIT = 300;
const LONGEST_WAIT = 10_000;
/** A server that has not been heard of for so long, in ms, is gone, whatever the network says. */
const LONGEST_SILENCE = 2.5 * LIVE_BEAT;

/** Who uses the socket. */
export interface LiveUser {
  connected(): void;
  lost(): void;
  /** The server is of another version: until one of both is renewed there is no talk. */
  otherVersion(): void;
  heard(message: FromServer): void;
}

/** A WebSocket to the server this page came from, opened anew after every break. */
export class LiveSocket {
  private socket: WebSocket | undefined;
  private wait = SHORTEST_WAIT;
  private again: ReturnType<typeof setTimeout> | undefined;
  private silence: ReturnType<typeof setTimeout> | undefined;
  private isOver = false;

  constructor(private readonly user: LiveUser) {
    this.connect();
  }

  /** Whether what is said now is sent now. */
  get isConnected(): boolean {
    return this.socket?.readyState === WebSocket.OPEN;
  }

  say(message: FromWindow): void {
    this.socket?.send(JSON.stringify(message));
  }

  /** Tries at once, where it waits to try again: the network may be back. */
  hurry(): void {
    if (this.again === undefined) return;
    this.wait = SHORTEST_WAIT;
    this.connect();
  }

  /** Ends it for good. */
  end(): void {
    this.isOver = true;
    clearTimeout(this.again);
    this.drop();
  }

  private connect(): void {
    clearTimeout(this.again);
    this.again = undefined;
    const url = new URL(LIVE_PATH, location.href);
    url.protocol = url.protocol.replace('http', 'ws');
    const socket = new WebSocket(url, LIVE_PROTOCOL);
    this.socket = socket;
    this.listen();
    socket.onopen = () => {
      this.wait = SHORTEST_WAIT;
      this.user.connected();
    };
    socket.onmessage = ({ data }: MessageEvent<string>) => {
      this.listen();
      this.hear(data);
    };
    socket.onclose = ({ code }) => {
      if (code === LIVE_OTHER_VERSION) {
        this.isOver = true;
        this.user.otherVersion();
      }
      this.broken();
    };
  }

  private hear(data: string): void {
    const message = fromServerSchema.safeParse(JSON.parse(data));
    if (message.success) this.user.heard(message.data);
    // A newer server may say more than this window knows of; what it has to know comes under another protocol.
    else console.warn('What the server says is not understood.', message.error);
  }

  /** Waits for the next word. A half-open connection never closes by itself. */
  private listen(): void {
    clearTimeout(this.silence);
    this.silence = setTimeout(() => this.broken(), LONGEST_SILENCE);
  }

  private broken(): void {
    this.drop();
    this.user.lost();
    if (this.isOver) return;
    this.again = setTimeout(() => this.connect(), this.wait * (0.75 + Math.random() / 2));
    this.wait = Math.min(LONGEST_WAIT, 2 * this.wait);
  }

  private drop(): void {
    clearTimeout(this.silence);
    const { socket } = this;
    this.socket = undefined;
    if (!socket) return;
    socket.onopen = socket.onmessage = socket.onclose = null;
    socket.close();
  }
}
