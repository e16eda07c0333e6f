import { TestBed } from '@angular/core/testing';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Store, provideStore } from '@ngrx/store';
import { NEVER } from 'rxjs';
import { PenPresence } from '../../platform/input/pen-presence';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';
import { ShorthandOffer } from './shorthand-offer';

const opened: string[] = [];

beforeEach(() => {
  localStorage.clear();
  opened.length = 0;
  jest.useFakeTimers();
  TestBed.configureTestingModule({
    providers: [
      provideStore({ kit: kitFeature.reducer }),
      ShorthandOffer,
      { provide: PenPresence, useValue: { isDown: () => false } },
      {
        provide: MatSnackBar,
        useValue: {
          open: (words: string) => {
            opened.push(words);
            return { onAction: () => NEVER };
          },
        },
      },
    ],
  });
});
afterEach(() => jest.useRealTimers());

test('shorthand is offered once, some time after a stroke that looks like it', () => {
  const offer = TestBed.inject(ShorthandOffer);
  expect(offer.isDue()).toBe(true);
  offer.noted('scratchOut');
  expect(opened).toEqual([]);
  jest.advanceTimersByTime(1500);
  expect(opened).toHaveLength(1);
  expect(offer.isDue()).toBe(false);
});

test('what has been turned on meanwhile is not offered', () => {
  const offer = TestBed.inject(ShorthandOffer);
  offer.noted('scratchOut');
  TestBed.inject(Store).dispatch(kitActions.shorthandChanged({ change: { scratchOut: true } }));
  jest.advanceTimersByTime(1500);
  expect(opened).toEqual([]);
});
