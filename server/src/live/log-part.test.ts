import fc from 'fast-check';
import { LogPart } from './log-part';

test('a part without some of its operations is a list of JSON of the others, in their order', () => {
  const texts = fc.array(fc.tuple(fc.json(), fc.boolean()), { maxLength: 12 });
  fc.assert(
    fc.property(texts, fc.nat(1000), (list, since) => {
      const operations = list.map(([text], i) => ({ revision: since + i + 1, text }));
      const part = new LogPart({ revision: since + list.length, operations });
      expect(part.last).toBe(operations.at(-1)?.revision);
      const left = part.without((revision) => list[revision - since - 1][1]);
      const told: unknown = JSON.parse(`[${Buffer.concat(left).toString()}]`);
      const kept = list.filter(([, isLeftOut]) => !isLeftOut);
      expect(told).toEqual(kept.map(([text]): unknown => JSON.parse(text)));
    }),
  );
});
