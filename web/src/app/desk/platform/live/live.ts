import { HttpErrorResponse } from '@angular/common/http';
import { Injectable, signal } from '@angular/core';
import type {
  FromServer,
  OperationLog,
  OperationResult,
  Presence,
  ProblemBody,
} from '@stylet/core/api';
import type { Operation } from '@stylet/core/document';
import { Subject, fromEvent } from 'rxjs';
import { LiveSocket } from './live-socket';

/** Who hears what is done to a document. */
export interface DocumentHearer {
  /** The revision up to which all is known here. */
  readonly since: () => number;
  readonly heard: (log: OperationLog) => void;
  readonly closed: (problem: ProblemBody) => void;
}

/** An answer that is waited for. */
interface Asked {
  readonly resolve: (result: OperationResult) => void;
  readonly reject: (error: HttpErrorResponse) => void;
}

/**
 * What this window and the server say to each other without being asked: one WebSocket, whatever is open. What goes
 * wrong comes as the error that the same would be over HTTP.
 */
@Injectable({ providedIn: 'root' })
export class Live {
  private readonly connected = signal(false);
  /** Whether what others do is heard as they do it. */
  readonly isConnected = this.connected.asReadonly();
  private readonly outdated = signal(false);
  /** Whether this window and the server are of versions that do not talk to each other. */
  readonly isOutdated = this.outdated.asReadonly();
  private readonly hearers = new Map<string, DocumentHearer>();
  private readonly asked = new Map<number, Asked>();
  private readonly presences = new Subject<Extract<FromServer, { kind: 'there' }>>();
  /** What other windows say of themselves. */
  readonly there = this.presences.asObservable();
  private requests = 0;
  private socket: LiveSocket | undefined;

  constructor() {
    const hurry = (): void => this.socket?.hurry();
    fromEvent(window, 'online').subscribe(hurry);
    fromEvent(document, 'visibilitychange').subscribe(hurry);
  }

  /** Begins to listen, whatever is open: that the server is away is known by that. */
  begin(): void {
    this.socket ??= this.connect();
  }

  /** Has somebody hear of a document, until the function that is returned is called. */
  open(documentId: string, hearer: DocumentHearer): () => void {
    this.hearers.set(documentId, hearer);
    this.begin();
    this.ask(documentId);
    return () => {
      if (this.hearers.get(documentId) !== hearer) return;
      this.hearers.delete(documentId);
      if (this.connected()) this.socket?.say({ kind: 'close', documentId });
    };
  }

  /** Says of this window where it is in an open document; null when it does not want to be seen. */
  here(documentId: string, presence: Presence | null): void {
    if (this.socket?.isConnected) this.socket.say({ kind: 'here', documentId, presence });
  }

  /** Has the server carry out operations; undefined where the socket is not open, so that HTTP has to do. */
  perform(
    documentId: string,
    operations: readonly Operation[],
  ): Promise<OperationResult> | undefined {
    const { socket } = this;
    if (!socket?.isConnected) return undefined;
    const request = ++this.requests;
    return new Promise((resolve, reject) => {
      this.asked.set(request, { resolve, reject });
      socket.say({ kind: 'perform', request, documentId, operations: [...operations] });
    });
  }

  private connect(): LiveSocket {
    return new LiveSocket({
      connected: () => {
        this.connected.set(true);
        for (const documentId of this.hearers.keys()) this.ask(documentId);
      },
      lost: () => {
        this.connected.set(false);
        const away = new HttpErrorResponse({ status: 0 });
        for (const { reject } of this.asked.values()) reject(away);
        this.asked.clear();
      },
      otherVersion: () => this.outdated.set(true),
      heard: (message) => this.heard(message),
    });
  }

  private ask(documentId: string): void {
    const hearer = this.hearers.get(documentId);
    if (hearer && this.socket?.isConnected)
      this.socket.say({ kind: 'open', documentId, since: hearer.since() });
  }

  private heard(message: FromServer): void {
    switch (message.kind) {
      case 'beat':
        return;
      case 'operations':
        this.hearers.get(message.documentId)?.heard(message);
        return;
      case 'closed':
        this.hearers.get(message.documentId)?.closed(message.problem);
        return;
      case 'there':
        this.presences.next(message);
        return;
      case 'performed':
        this.answered(message.request)?.resolve(message);
        return;
      case 'refused': {
        const { problem } = message;
        this.answered(message.request)?.reject(
          new HttpErrorResponse({ status: problem.status, error: problem }),
        );
      }
    }
  }

  private answered(request: number): Asked | undefined {
    const asked = this.asked.get(request);
    this.asked.delete(request);
    return asked;
  }
}
