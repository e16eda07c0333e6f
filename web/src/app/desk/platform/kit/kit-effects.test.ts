import { TestBed } from '@angular/core/testing';
import { provideEffects } from '@ngrx/effects';
import { Store, provideStore } from '@ngrx/store';
import type { Kit } from '@stylet/core/api';
import { Subject, of } from 'rxjs';
import { Api } from '../../../api/api';
import { KitEffects } from './kit.effects';
import { kitActions, kitFeature } from './kit.reducer';

test('what is changed before the server has said what the kit is stays, and goes to the server', () => {
  jest.useFakeTimers();
  localStorage.clear();
  const asked = new Subject<{ kit: Kit | null }>();
  const sent: Kit[] = [];
  const keepKit = (kit: Kit) => of(void sent.push(kit));
  TestBed.configureTestingModule({
    providers: [
      provideStore({ kit: kitFeature.reducer }),
      provideEffects(KitEffects),
      { provide: Api, useValue: { kit: () => asked, keepKit } },
    ],
  });
  const store = TestBed.inject(Store);
  const kit = store.selectSignal(kitFeature.selectKit);
  const elsewhere: Kit = { ...kit(), shorthand: { scratchOut: false, ring: true, box: false } };
  store.dispatch(kitActions.shorthandChanged({ change: { scratchOut: true } }));
  asked.next({ kit: elsewhere });
  expect(kit().shorthand).toMatchObject({ scratchOut: true, ring: false });
  jest.runAllTimers();
  expect(sent.at(-1)?.shorthand?.scratchOut).toBe(true);
  jest.useRealTimers();
});
