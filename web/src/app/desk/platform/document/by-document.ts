import type { Operation } from '@stylet/core/document';

/** Operations apart by their documents, each in its order. */
export function byDocument(operations: readonly Operation[]): Map<string, Operation[]> {
  const apart = new Map<string, Operation[]>();
  for (const operation of operations) {
    const known = apart.get(operation.documentId);
    if (known) known.push(operation);
    else apart.set(operation.documentId, [operation]);
  }
  return apart;
}
