import { deserialize, serialize } from 'node:v8';
// jsdom has no structured clone, which IndexedDB stores values by.
globalThis.structuredClone ??= ((value: unknown) =>
  deserialize(serialize(value))) as typeof structuredClone;
import 'fake-indexeddb/auto';
import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';

setupZonelessTestEnv();
