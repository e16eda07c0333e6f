import {
  LIVE_PATH,
  LIVE_PROTOCOL,
  annotationListSchema,
  documentSchema,
  fromServerSchema,
  type FromServer,
  type FromWindow,
} from '@stylet/core/api';
import {
  documentState,
  hear,
  replicaOf,
  type News,
  type Operation,
  type Replica,
} from '@stylet/core/document';
import WebSocket from 'ws';

/** How long it is looked for what is waited for, in ms. */
const SOON = 5;

/** A window without a browser: what it has of one document, and its socket, which may break. */
export class LiveWindow {
  replica: Replica = replicaOf(documentState('', []), 0);
  /** All that was heard, oldest first, but that the server is there. */
  readonly heard: FromServer[] = [];
  private socket: WebSocket | undefined;
  private request = 0;
  private readonly asked = new Map<number, readonly string[]>();

  /** `headers` say who it is. */
  constructor(
    readonly documentId: string,
    private readonly headers: Readonly<Record<string, string>> = {},
  ) {}

  /** Begins from what a server has. */
  async load(url: string): Promise<void> {
    const read = async (path: string): Promise<unknown> =>
      (await fetch(`${url}/api/documents/${this.documentId}${path}`)).json();
    const { title, pages, landmarks, revision } = documentSchema.parse(await read(''));
    const { annotations } = annotationListSchema.parse(await read('/annotations'));
    this.replica = replicaOf(documentState(title, annotations, landmarks, pages), revision);
  }

  /** Opens a socket. Rejects where there is no server. */
  async connect(url: string, protocol = LIVE_PROTOCOL): Promise<WebSocket> {
    const { headers } = this;
    const socket = new WebSocket(url.replace('http', 'ws') + LIVE_PATH, protocol, { headers });
    this.socket = socket;
    socket.on('message', (data: Buffer) =>
      this.hears(fromServerSchema.parse(JSON.parse(data.toString()))),
    );
    await new Promise((resolve, reject) => socket.once('open', resolve).once('error', reject));
    // One that breaks later is closed by that.
    socket.on('error', () => undefined);
    return socket;
  }

  get isConnected(): boolean {
    return this.socket?.readyState === WebSocket.OPEN;
  }

  /** Opens its document from where it is, and sends what waits. */
  open(): void {
    this.say({ kind: 'open', documentId: this.documentId, since: this.replica.revision });
    if (this.replica.pending.length > 0) this.send(this.replica.pending);
  }

  /** Does something: it is seen here at once. */
  make(...operations: Operation[]): void {
    this.hear({ kind: 'made', operations });
    if (this.isConnected) this.send(operations);
  }

  /** Breaks off without a word. */
  breakOff(): void {
    this.socket?.terminate();
  }

  /** Leaves its socket half open: nothing is read there or said any more, and nobody closes it. */
  fallSilent(): void {
    const { socket } = this;
    this.socket = undefined;
    socket?.removeAllListeners('message').pause();
  }

  say(message: FromWindow): void {
    this.socket?.send(JSON.stringify(message));
  }

  /** Sends operations; again, for all it matters. */
  send(operations: readonly Operation[]): void {
    const { documentId } = this;
    const request = ++this.request;
    this.asked.set(
      request,
      operations.map(({ id }) => id),
    );
    this.say({ kind: 'perform', request, documentId, operations: [...operations] });
  }

  private hears(message: FromServer): void {
    if (message.kind === 'beat') return;
    this.heard.push(message);
    if (message.kind === 'operations')
      this.hear({ kind: 'confirmed', operations: message.operations });
    else if (message.kind === 'performed')
      this.hear({
        kind: 'acknowledged',
        revisions: message.operations,
        revision: message.revision,
      });
    // A server whose database is away has not looked at them: they are sent again.
    else if (message.kind === 'refused' && message.problem.status < 500)
      this.hear({ kind: 'refused', ids: this.asked.get(message.request) ?? [] });
  }

  private hear(news: News): void {
    this.replica = hear(this.replica, news);
  }

  /** The first heard of a kind that is as is asked, once there is one. */
  async first<Kind extends FromServer['kind']>(
    kind: Kind,
    is: (message: FromServer & { readonly kind: Kind }) => boolean = () => true,
  ): Promise<FromServer & { readonly kind: Kind }> {
    const isWanted = (message: FromServer): message is FromServer & { readonly kind: Kind } =>
      message.kind === kind && is(message as FromServer & { readonly kind: Kind });
    for (;;) {
      const found = this.heard.find(isWanted);
      if (found) return found;
      await new Promise((resolve) => setTimeout(resolve, SOON));
    }
  }

  /** Waits until it has all up to a revision, and nothing of its own is under way. Throws where it does not come to that. */
  async until(revision: number, longest = 20_000): Promise<void> {
    const end = Date.now() + longest;
    while (this.replica.revision < revision || this.replica.pending.length > 0) {
      const { revision: at, heardOf, pending } = this.replica;
      if (Date.now() > end)
        throw new Error(
          `It is at ${at} of ${revision}, has heard of ${heardOf}, and ${pending.length} wait.`,
        );
      await new Promise((resolve) => setTimeout(resolve, SOON));
    }
  }
}
