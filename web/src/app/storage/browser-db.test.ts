import { TestBed } from '@angular/core/testing';
import { newId } from '@stylet/core/document';
import { deleteDB, openDB } from 'idb';
import { Outbox } from '../desk/platform/sync/outbox';
import { nameHere } from './account';

test('what waited in a database of an earlier version waits on, in its order', async () => {
  const name = nameHere('stylet');
  await deleteDB(name);
  const operations = ['One', 'Two', 'Three'].map((title) => ({
    id: newId(),
    documentId: newId(),
    author: 'A',
    at: '2026-09-01T08:00:00.000Z',
    baseRevision: 0,
    effect: { type: 'document.rename' as const, title },
  }));
  const before = await openDB(name, 4, {
    upgrade(database) {
      const store = database.createObjectStore('operations', { keyPath: 'operation.id' });
      store.createIndex('document', 'operation.documentId');
      const steps = database.createObjectStore('steps', { autoIncrement: true });
      steps.createIndex('place', ['window', 'documentId']);
      steps.createIndex('at', 'at');
      database.createObjectStore('pictures', { keyPath: 'digest' });
      database.createObjectStore('aside', { keyPath: 'operation.id' });
    },
  });
  for (const operation of operations) await before.put('operations', { operation });
  before.close();
  const outbox = TestBed.inject(Outbox);
  expect(await outbox.all()).toEqual(operations);
  await outbox.acknowledge(operations.slice(0, 2));
  expect(await outbox.all()).toEqual(operations.slice(2));
});
