import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { Subject } from 'rxjs';
import type { Lookup } from '@stylet/core/api';
import { Api } from '../../../api/api';
import { LookingUp } from './looking-up';

const answers = new Map<string, Subject<Lookup>>();
const api = {
  lookUp: (word: string) => {
    const answer = new Subject<Lookup>();
    answers.set(word, answer);
    return answer;
  },
};
const said = (word: string): Lookup => ({
  word,
  dictionaries: [{ title: 'Words', entries: [{ headword: word, meanings: [] }] }],
});

function looking(): LookingUp {
  TestBed.configureTestingModule({
    providers: [LookingUp, { provide: Api, useValue: api }],
  });
  return TestBed.inject(LookingUp);
}

const answer = async (word: string): Promise<void> => {
  answers.get(word)!.next(said(word));
  answers.get(word)!.complete();
  await Promise.resolve();
  await Promise.resolve();
  await Promise.resolve();
};

test('one word leads to another, and back', async () => {
  const words = looking();
  void words.begin('ebb', {} as DOMRect);
  expect(words.current()).toEqual({ word: 'ebb' });
  await answer('ebb');
  expect(words.current()?.found?.word).toBe('ebb');
  expect(words.canGoBack()).toBe(false);
  void words.follow('tide');
  await answer('tide');
  expect(words.current()?.found?.word).toBe('tide');
  words.back();
  expect(words.current()?.found?.word).toBe('ebb');
  words.close();
  expect(words.current()).toBeUndefined();
});

test('an answer that comes after something else was looked up does not take its place', async () => {
  const words = looking();
  void words.begin('slow', {} as DOMRect);
  void words.begin('quick', {} as DOMRect);
  await answer('quick');
  await answer('slow');
  expect(words.current()?.found?.word).toBe('quick');
  expect(words.canGoBack()).toBe(false);
});

test('why a word cannot be looked up is said', async () => {
  const words = looking();
  const asked = words.begin('ebb', {} as DOMRect);
  answers.get('ebb')!.error(new HttpErrorResponse({ status: 0 }));
  await asked;
  expect(words.current()?.trouble?.title).toBe('The server does not answer');
});
