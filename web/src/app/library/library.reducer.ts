import type {
  BroughtIn,
  DocumentSummary,
  FolderList,
  LibraryPart,
  LibrarySorting,
} from '@stylet/core/api';
import {
  createActionGroup,
  createFeature,
  createReducer,
  createSelector,
  emptyProps,
  on,
  props,
} from '@ngrx/store';
import type { Operation } from '@stylet/core/document';
import type { Beside } from '../../kept/begun';
import type { Trouble } from '../api/problem';
import { documentActions } from '../desk/platform/document/document.reducer';

/** A file on its way into the library. */
export interface Upload {
  readonly id: string;
  readonly name: string;
  /** 0–1 while it is sent. */
  readonly share: number;
  readonly state: 'waiting' | 'sending' | 'reading' | 'done' | 'failed';
  readonly document?: BroughtIn;
  readonly trouble?: Trouble;
}

export const libraryActions = createActionGroup({
  source: 'Library',
  events: {
    /** What is shown is read anew. */
    Opened: emptyProps(),
    /** Other documents are to be shown. */
    Wanted: props<{ wanted: Wanted }>(),
    'More Wanted': emptyProps(),
    /** As the server has them; `waiting`: what it has not been told yet. */
    'Documents Arrived': props<{
      part: LibraryPart;
      folderList: FolderList;
      waiting: readonly Operation[];
    }>(),
    'More Arrived': props<{ part: LibraryPart; after: string; waiting: readonly Operation[] }>(),
    'Documents Failed': props<{ trouble: Trouble }>(),
    /** Files to be brought in, into a folder or into none. */
    'Files Chosen': props<{
      files: { id: string; file: File; beside: readonly Beside[] }[];
      folder?: string;
    }>(),
    'Upload Advanced': props<{ id: string; share: number }>(),
    'Upload Done': props<{ id: string; document: BroughtIn }>(),
    /** Without the server: the document waits for it in this browser. */
    'Upload Begun': props<{ id: string }>(),
    'Upload Failed': props<{ id: string; trouble: Trouble }>(),
    /** A file that asks for its password is sent once more with it. */
    'Password Given': props<{ id: string; password: string }>(),
    'Uploads Put Away': emptyProps(),
  },
});

/** Which documents are to be shown: those of a folder or of none; with words, those within that have them. */
export interface Wanted {
  readonly folder: string | undefined;
  readonly words: string;
  readonly sort: LibrarySorting;
}

export interface LibraryState {
  readonly wanted: Wanted;
  /** Those that have come, in their order. */
  readonly documents: readonly DocumentSummary[];
  /** Where those go on that have not. */
  readonly next: string | null;
  readonly folderList: FolderList;
  readonly loading: boolean;
  readonly trouble: Trouble | undefined;
  readonly uploads: readonly Upload[];
}

const initial: LibraryState = {
  wanted: { folder: undefined, words: '', sort: 'changed' },
  documents: [],
  next: null,
  folderList: { folders: [], outside: 0 },
  loading: true,
  trouble: undefined,
  uploads: [],
};

const changeUpload = (state: LibraryState, id: string, change: Partial<Upload>): LibraryState => ({
  ...state,
  uploads: state.uploads.map((upload) => (upload.id === id ? { ...upload, ...change } : upload)),
});

/** Whether a document that has just come is among those that are to be shown. */
const isWanted = ({ folder, words }: Wanted, { folderId }: DocumentSummary): boolean =>
  words.trim() === '' && folderId === (folder ?? null);

const withOneMore = (list: FolderList, folderId: string | null): FolderList => ({
  folders: list.folders.map((folder) =>
    folder.id === folderId ? { ...folder, documents: folder.documents + 1 } : folder,
  ),
  outside: list.outside + (folderId === null ? 1 : 0),
});

/** A document that is called something else shows so at once. */
function renamedIn(state: LibraryState, { documentId, effect }: Operation): LibraryState {
  if (effect.type !== 'document.rename') return state;
  const renamed = <T extends DocumentSummary>(document: T): T =>
    document.id === documentId ? { ...document, title: effect.title } : document;
  return {
    ...state,
    documents: state.documents.map(renamed),
    uploads: state.uploads.map((upload) =>
      upload.document ? { ...upload, document: renamed(upload.document) } : upload,
    ),
  };
}

export const libraryFeature = createFeature({
  name: 'library',
  reducer: createReducer(
    initial,
    on(libraryActions.opened, (state) => ({ ...state, loading: true, trouble: undefined })),
    on(libraryActions.wanted, (state, { wanted }) => {
      // What is in the folder that is left must not show while another one comes.
      const isElsewhere = wanted.folder !== state.wanted.folder;
      const none = isElsewhere ? { documents: [], next: null } : {};
      return { ...state, ...none, wanted, loading: true };
    }),
    on(libraryActions.documentsArrived, (state, { part, folderList, waiting }) =>
      waiting.reduce(renamedIn, { ...state, ...part, folderList, loading: false }),
    ),
    on(libraryActions.moreArrived, (state, { part, after, waiting }) => {
      // The list may have been asked for anew meanwhile.
      if (after !== state.next) return state;
      const documents = [...state.documents, ...part.documents];
      return waiting.reduce(renamedIn, { ...state, ...part, documents });
    }),
    on(libraryActions.documentsFailed, (state, { trouble }) => ({
      ...state,
      trouble,
      loading: false,
    })),
    on(libraryActions.filesChosen, (state, { files }) => ({
      ...state,
      uploads: [
        ...state.uploads,
        ...files.map(({ id, file }) => ({
          id,
          name: file.name,
          share: 0,
          state: 'waiting' as const,
        })),
      ],
    })),
    on(libraryActions.uploadAdvanced, (state, { id, share }) =>
      changeUpload(state, id, { share, state: share < 1 ? 'sending' : 'reading' }),
    ),
    on(libraryActions.uploadDone, (state, { id, document }) => ({
      ...changeUpload(state, id, { share: 1, state: 'done', document }),
      documents: isWanted(state.wanted, document)
        ? [document, ...state.documents]
        : state.documents,
      folderList: withOneMore(state.folderList, document.folderId),
    })),
    on(libraryActions.uploadBegun, (state, { id }) => ({
      ...state,
      uploads: state.uploads.filter((upload) => upload.id !== id),
    })),
    on(libraryActions.uploadFailed, (state, { id, trouble }) =>
      changeUpload(state, id, { state: 'failed', trouble }),
    ),
    on(libraryActions.passwordGiven, (state, { id }) =>
      changeUpload(state, id, { state: 'waiting', share: 0 }),
    ),
    on(documentActions.stepMade, (state, { step }) => step.operations.reduce(renamedIn, state)),
    on(libraryActions.uploadsPutAway, (state) => ({
      ...state,
      uploads: state.uploads.filter(({ state: s }) => s !== 'done' && s !== 'failed'),
    })),
  ),
  extraSelectors: ({ selectFolderList }) => ({
    selectFolders: createSelector(selectFolderList, ({ folders }) => folders),
  }),
});
