/** The part of the WebAssembly JavaScript Interface (W3C) that is used; it is declared with browsers' types alone. */
declare namespace WebAssembly {
  function instantiate(
    bytes: Uint8Array,
  ): Promise<{ readonly instance: { readonly exports: Readonly<Record<string, unknown>> } }>;
}
