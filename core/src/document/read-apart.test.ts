import fc from 'fast-check';
import { apply } from './apply';
import { applyAll } from './draft';
import { newId } from './ids';
import type { Annotation } from './annotation';
import type { Effect } from './operation';
import { effectsUnseen } from './read-apart';
import type { ConfirmedOperation } from './replica';
import { documentState } from './state';
import { annotationEffect, contentsOf, idOf } from './testing/index';

const confirmed = (effect: Effect, i: number): ConfirmedOperation => ({
  operation: {
    id: newId(),
    documentId: idOf(1),
    author: 'A',
    at: '2026-09-01T08:00:00.000Z',
    baseRevision: 0,
    effect,
  },
  revision: i + 1,
});

test('pages read one after the other, while others write, come to what all has become', () => {
  fc.assert(
    fc.property(
      fc.array(annotationEffect, { maxLength: 20 }),
      fc.array(fc.nat(20), { minLength: 3, maxLength: 3 }),
      (effects, readings) => {
        const log = effects.map(confirmed);
        const states = [documentState('Waves', [])];
        for (const effect of effects) states.push(apply(states[states.length - 1], effect));
        const revisions = readings
          .map((revision) => Math.min(revision, effects.length))
          .sort((a, b) => a - b);
        const there = new Map<string, { annotation: Annotation; revision: number }>();
        revisions.forEach((revision, i) => {
          for (const annotation of Object.values(states[revision].annotations[idOf(91 + i)] ?? {}))
            there.set(annotation.id, { annotation, revision });
        });
        const read = [...there.values()].map(({ annotation }) => annotation);
        const since = log.slice(revisions[0]);
        const unseen = effectsUnseen(since, (id) => there.get(id)?.revision);
        const now = applyAll(documentState('Waves', read), unseen);
        expect(contentsOf(now)).toEqual(contentsOf(states[states.length - 1]));
      },
    ),
    { numRuns: 2000 },
  );
});
