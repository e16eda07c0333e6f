/** What is run once for each desk, where `inject` finds what the desk provides. */
export type Inject<T> = () => T;
