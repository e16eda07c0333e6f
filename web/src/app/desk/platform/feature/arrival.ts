/** How one comes to a place of a document by an address. */
export interface Arrival {
  /** The page's id. */
  readonly page: string;
  /** Points of page space. */
  readonly y: number;
  /** What was looked for and found there. */
  readonly find?: {
    readonly typed: string;
    readonly keepsCase: boolean;
    readonly wholeWords: boolean;
  };
}
