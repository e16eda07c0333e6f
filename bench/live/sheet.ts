import { LIVE_PATH, LIVE_PROTOCOL, documentSchema } from '@stylet/core/api';
import { newId, type Operation } from '@stylet/core/document';
import { samplesOf, samplesToBase64 } from '@stylet/core/ink';
import { a4 } from '@stylet/core/paper';
import { paperPdf } from '@stylet/core/pdf';
import { once } from 'node:events';
import { WebSocket } from 'ws';
import type { Instance } from '../../e2e/support/instance';

/** Samples of a stroke: half a second of a pen of 120 Hz. */
const SAMPLES = 60;

const samples = samplesToBase64(
  samplesOf(
    Array.from({ length: SAMPLES }, (_, i) => ({
      x: 100 + 2 * i,
      y: 300 + 20 * Math.sin(i / 5),
      pressure: 0.4 + 0.2 * Math.sin(i / 9),
      tiltX: 20,
      tiltY: -10,
      time: i * 8,
    })),
  ),
);

/** Somebody writes a stroke. */
export function stroke(documentId: string, pageId: string): Operation {
  const now = new Date().toISOString();
  const annotation = {
    kind: 'ink' as const,
    id: newId(),
    pageId,
    order: 'a5',
    color: '#2f4fb5',
    opacity: 1,
    author: 'Bench',
    created: now,
    modified: now,
    instrument: 'nib' as const,
    width: 2,
    smoothing: 0.3,
    samples,
  };
  const effect = { type: 'annotation.add' as const, annotation };
  return { id: newId(), documentId, author: 'Bench', at: now, baseRevision: 0, effect };
}

/** A document of one sheet, to be written on. */
export async function sheet(instance: Instance): Promise<{ id: string; pageId: string }> {
  const id = await instance.bringIn(paperPdf({ ruling: 'blank', ...a4() }), 'Live.pdf');
  const reply = await fetch(`${instance.url}/api/documents/${id}`);
  return { id, pageId: documentSchema.parse(await reply.json()).pages[0].id };
}

/** A socket of a window. */
export async function opened(instance: Instance): Promise<WebSocket> {
  return connected(instance.url.replace('http', 'ws') + LIVE_PATH, LIVE_PROTOCOL);
}

export async function connected(url: string, protocol?: string): Promise<WebSocket> {
  const socket = new WebSocket(url, protocol);
  await once(socket, 'open');
  return socket;
}
