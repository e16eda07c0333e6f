import type { Folder, FolderList } from '@stylet/core/api';

/** A folder in the order of the library, each with those that lie in it after it. */
export interface Branch {
  readonly folder: Folder;
  /** How many folders it lies in. */
  readonly depth: number;
}

/** Folders as a tree, by name; without `but` and all that lies in it. */
export function branches(folders: readonly Folder[], but?: string): Branch[] {
  const within = (parentId: string | null, depth: number): Branch[] =>
    folders
      .filter((folder) => folder.parentId === parentId && folder.id !== but)
      .flatMap((folder) => [{ folder, depth }, ...within(folder.id, depth + 1)]);
  return within(null, 0);
}

/** A folder and those that it lies in, the outermost first; empty when there is none of that id. */
export function pathTo(folders: readonly Folder[], id: string | undefined): Folder[] {
  const folder = folders.find((one) => one.id === id);
  return folder ? [...pathTo(folders, folder.parentId ?? undefined), folder] : [];
}

/** A folder's id and those of all that lie within it. */
export function idsWithin(folders: readonly Folder[], id: string): Set<string> {
  const inside = folders.filter(({ parentId }) => parentId === id);
  return new Set([id, ...inside.flatMap((folder) => [...idsWithin(folders, folder.id)])]);
}

/** How many documents lie in a folder or within it; without one, in the library. */
export function documentsWithin({ folders, outside }: FolderList, id: string | undefined): number {
  const ids = id === undefined ? undefined : idsWithin(folders, id);
  const counted = folders.filter((folder) => ids?.has(folder.id) ?? true);
  return counted.reduce((sum, { documents }) => sum + documents, ids ? 0 : outside);
}
