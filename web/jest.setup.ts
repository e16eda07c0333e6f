import { deserialize, serialize } from 'node:v8';
// jsdom has no structured clone, which IndexedDB stores values by.
globalThis.structuredClone ??= ((value: unknown) =>
  deserialize(serialize(value))) as typeof structuredClone;
// Nor has it channels between windows; in a test there is one window.
globalThis.BroadcastChannel ??= class extends EventTarget {
  postMessage(): void {}
  close(): void {}
} as unknown as typeof BroadcastChannel;
import 'fake-indexeddb/auto';
import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';

setupZonelessTestEnv();
