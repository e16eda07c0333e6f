import { TestBed } from '@angular/core/testing';
import { newId } from '@stylet/core/document';
import type { Origin } from '../../kept/begun';
import { KeptDocuments } from '../kept/kept-documents';
import { BegunDocuments } from './begun-documents';

const paper = { ruling: 'lined', width: 400, height: 300 } as const;
const origin: Origin = { kind: 'notebook', wanted: { title: 'Notes', paper, sheets: 1 } };
const removed: string[] = [];
/** What happens while the file is being read. */
let meanwhile: () => Promise<void>;
let begun: BegunDocuments;

beforeEach(() => {
  removed.length = 0;
  meanwhile = () => Promise.resolve();
  const kept = {
    begin: async () => {
      await meanwhile();
      return { kind: 'kept', title: 'Notes, read' };
    },
    remove: (id: string) => Promise.resolve(void removed.push(id)),
  };
  TestBed.configureTestingModule({ providers: [{ provide: KeptDocuments, useValue: kept }] });
  begun = TestBed.inject(BegunDocuments);
});

test('a document that begins here waits, can be opened, and goes when the server has it', async () => {
  const id = newId();
  const { title, isOpenable } = await begun.begin(id, origin);
  expect([title, isOpenable, removed]).toEqual(['Notes, read', true, []]);
  expect((await begun.all()).map((one) => one.id)).toContain(id);
  await begun.remove(id);
  expect(await begun.isBegun(id)).toBe(false);
});

test('what the server has before it was read here is not kept as something that begins', async () => {
  const id = newId();
  meanwhile = () => begun.remove(id);
  await begun.begin(id, origin);
  expect(removed).toEqual([id]);
  expect(await begun.isBegun(id)).toBe(false);
});
