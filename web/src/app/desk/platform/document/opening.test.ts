import { TestBed } from '@angular/core/testing';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { StyletDocument } from '@stylet/core/api';
import {
  apply,
  documentState,
  newId,
  noHistory,
  type Annotation,
  type ConfirmedOperation,
  type Effect,
} from '@stylet/core/document';
import { Actions } from '@ngrx/effects';
import { firstValueFrom, of } from 'rxjs';
import { Api } from '../../../api/api';
import { BegunDocuments } from '../../../begun/begun-documents';
import { KeptDocuments } from '../../../kept/kept-documents';
import { Outbox } from '../sync/outbox';
import { CatchingUp } from './catching-up';
import { DocumentEffects } from './document.effects';
import { documentActions } from './document.reducer';
import { HistoryStore } from './history-store';

const [id, pageId, boxId] = [newId(), newId(), newId()];
const at = '2026-09-01T08:00:00.000Z';
const words = (text: string) => [{ runs: [{ text }] }];
const box = {
  kind: 'textBox',
  id: boxId,
  pageId,
  order: 'a0',
  paragraphs: words('tide'),
  modified: at,
} as unknown as Annotation;
const went = (text: string): Effect => ({
  type: 'annotation.change',
  pageId,
  annotationId: boxId,
  fields: { paragraphs: words(text), modified: at },
  was: { paragraphs: words('tide') },
});
/** Two went on with the same words without knowing of each other, between them the document got another name. */
const effects: Effect[] = [
  went('low tide'),
  { type: 'document.rename', title: 'Swell' },
  went('tide pool'),
];
const log = effects.map((effect, i): ConfirmedOperation => ({
  operation: { id: newId(), documentId: id, author: 'A', at, baseRevision: 0, effect },
  revision: i + 1,
}));
const states = [documentState('Waves', [box])];
for (const effect of effects) states.push(apply(states[states.length - 1], effect));

/** What is opened where the document was read at one revision, and annotations at another. */
async function opened(document: number, annotations: number) {
  const about = { id, title: states[document].title, landmarks: [], pages: [], revision: document };
  const list = Object.values(states[annotations].annotations[pageId]);
  const api = {
    document: () => of(about as unknown as StyletDocument),
    annotations: () => of({ annotations: list, unread: [], revision: annotations }),
  };
  const between = (_: string, from: number, to: number) => Promise.resolve(log.slice(from, to));
  TestBed.configureTestingModule({
    providers: [
      DocumentEffects,
      { provide: Actions, useValue: of(documentActions.opened({ id })) },
      { provide: Api, useValue: api },
      { provide: Outbox, useValue: { waiting: () => Promise.resolve([]) } },
      { provide: HistoryStore, useValue: { read: () => Promise.resolve(noHistory) } },
      { provide: MatSnackBar, useValue: {} },
      { provide: CatchingUp, useValue: { between } },
      { provide: BegunDocuments, useValue: {} },
      { provide: KeptDocuments, useValue: { opening: () => Promise.resolve(undefined) } },
    ],
  });
  const action = await firstValueFrom(TestBed.inject(DocumentEffects).load);
  TestBed.resetTestingModule();
  if (action.type !== documentActions.loaded.type) throw new Error('It did not open.');
  return action;
}

test('whichever of pages and annotations came earlier is brought to the later revision', async () => {
  for (let document = 0; document <= log.length; document++)
    for (let annotations = 0; annotations <= log.length; annotations++) {
      const latest = Math.max(document, annotations);
      const loaded = await opened(document, annotations);
      expect(loaded.document).toMatchObject({ revision: latest, title: states[latest].title });
      expect(loaded.annotations).toEqual(Object.values(states[latest].annotations[pageId]));
    }
  expect(states[3].annotations[pageId][boxId]).toMatchObject({
    paragraphs: words('low tide pool'),
  });
});
