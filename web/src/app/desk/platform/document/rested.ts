import { effect, signal, type Signal } from '@angular/core';

/** What a signal was when it had last rested for `ms`; used within an injection context. */
export function rested<T>(source: Signal<T>, ms: number): Signal<T> {
  const shown = signal(source());
  effect((onCleanup) => {
    const value = source();
    const timer = setTimeout(() => shown.set(value), ms);
    onCleanup(() => clearTimeout(timer));
  });
  return shown;
}
