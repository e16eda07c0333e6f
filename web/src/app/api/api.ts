import { HttpClient } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import {
  addressListSchema,
  annotationListSchema,
  companionAnswerSchema,
  attachmentListSchema,
  exportReportSchema,
  dictionaryListSchema,
  documentListSchema,
  documentSchema,
  documentTextSchema,
  textChangedSchema,
  type DocumentText,
  type TextChange,
  type TextChanged,
  type WrittenText,
  documentSummarySchema,
  findResultSchema,
  folderListSchema,
  indexingSchema,
  keptKitSchema,
  libraryPartSchema,
  keywordListSchema,
  lookupSchema,
  pictureFactsSchema,
  operationLogSchema,
  operationResultSchema,
  pageSupplySchema,
  readingSchema,
  savedSearchListSchema,
  speechSchema,
  voiceListSchema,
  type AnnotationList,
  type AttachmentFile,
  type Companion,
  type Dictionary,
  type DocumentSummary,
  type ExportReport,
  type FindResult,
  type Folder,
  type FolderList,
  type HungKeyword,
  type IndexingState,
  type Kit,
  type LibraryPart,
  type LibraryQuery,
  type Lookup,
  type NotebookWanted,
  type OperationLog,
  type OperationResult,
  type PageSupplyBody,
  type PictureFacts,
  type Reading,
  type ReadingReport,
  type SavedSearch,
  type Search,
  type SnipRequest,
  type Speech,
  type SpeechWanted,
  type StyletDocument,
  type Voice,
} from '@stylet/core/api';
import type { Operation, Picture } from '@stylet/core/document';
import type { Paper } from '@stylet/core/paper';
import type { ExportHow } from '@stylet/core/pdf';
import { map, type Observable } from 'rxjs';
import { picturePath, sourcePath } from '../../kept/addresses';
import { fileForm } from './file-form';

/** The server's API, answers checked against its schemas. */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);

  /** A part of the documents, but for those in the trash. */
  documents(query: LibraryQuery): Observable<LibraryPart> {
    const params = Object.fromEntries(
      Object.entries(query).filter(([, value]) => value !== undefined),
    ) as Record<string, string | number>;
    return this.http
      .get('/api/documents', { params })
      .pipe(map((body) => libraryPartSchema.parse(body)));
  }

  document(id: string): Observable<StyletDocument> {
    return this.http.get(`/api/documents/${id}`).pipe(map((body) => documentSchema.parse(body)));
  }

  /** All annotations of a document, or as many as `most` of those nearest to where one was last. */
  annotations(id: string, most?: number): Observable<AnnotationList> {
    return this.annotationsBy(id, most === undefined ? {} : { most });
  }

  annotationsOn(id: string, pageIds: readonly string[]): Observable<AnnotationList> {
    return this.annotationsBy(id, { pages: pageIds.join() });
  }

  private annotationsBy(
    id: string,
    params: Record<string, string | number>,
  ): Observable<AnnotationList> {
    return this.http
      .get(`/api/documents/${id}/annotations`, { params })
      .pipe(map((body) => annotationListSchema.parse(body)));
  }

  /** The text of a document with typed pages. */
  text(id: string): Observable<DocumentText> {
    return this.http
      .get(`/api/documents/${id}/text`)
      .pipe(map((body) => documentTextSchema.parse(body)));
  }

  setText(id: string, change: TextChange): Observable<TextChanged> {
    return this.http
      .put(`/api/documents/${id}/text`, change)
      .pipe(map((body) => textChangedSchema.parse(body)));
  }

  writtenTextUrl(id: string, as: WrittenText): string {
    return `/api/documents/${id}/text/export?as=${as}`;
  }

  perform(id: string, operations: readonly Operation[]): Observable<OperationResult> {
    return this.http
      .post(`/api/documents/${id}/operations`, { operations })
      .pipe(map((body) => operationResultSchema.parse(body)));
  }

  /** What was done to a document after a revision, or the first of it. */
  operationsSince(id: string, since: number): Observable<OperationLog> {
    return this.http
      .get(`/api/documents/${id}/operations`, { params: { since } })
      .pipe(map((body) => operationLogSchema.parse(body)));
  }

  trash(): Observable<DocumentSummary[]> {
    return this.http
      .get('/api/trash')
      .pipe(map((body) => documentListSchema.parse(body).documents));
  }

  setTrashed(id: string, trashed: boolean): Observable<void> {
    return this.http.put(`/api/documents/${id}/trash`, { trashed }).pipe(map(() => undefined));
  }

  removeForGood(id: string): Observable<void> {
    return this.http.delete(`/api/documents/${id}`).pipe(map(() => undefined));
  }

  duplicate(id: string): Observable<DocumentSummary> {
    return this.http
      .post(`/api/documents/${id}/duplicate`, null)
      .pipe(map((body) => documentSummarySchema.parse(body)));
  }

  kit(): Observable<{ kit: Kit | null }> {
    return this.http.get('/api/kit').pipe(map((body) => keptKitSchema.parse(body)));
  }

  keepKit(kit: Kit): Observable<void> {
    return this.http.put('/api/kit', kit).pipe(map(() => undefined));
  }

  takePicture(file: Blob, name: string): Observable<PictureFacts> {
    return this.http
      .post('/api/pictures', fileForm(file, name))
      .pipe(map((body) => pictureFactsSchema.parse(body)));
  }

  keywords(): Observable<HungKeyword[]> {
    return this.http
      .get('/api/keywords')
      .pipe(map((body) => keywordListSchema.parse(body).keywords));
  }

  /** What dictionaries say of words as they stand on a page. */
  lookUp(word: string): Observable<Lookup> {
    return this.http
      .get('/api/lookup', { params: { word } })
      .pipe(map((body) => lookupSchema.parse(body)));
  }

  dictionaries(): Observable<Dictionary[]> {
    return this.http
      .get('/api/dictionaries')
      .pipe(map((body) => dictionaryListSchema.parse(body).dictionaries));
  }

  /** Adds a dictionary: a word list, or an index and its texts. */
  addDictionary(files: readonly File[]): Observable<unknown> {
    const form = new FormData();
    for (const file of files) form.append('file', file);
    return this.http.post('/api/dictionaries', form);
  }

  renameDictionary(id: string, title: string): Observable<unknown> {
    return this.http.put(`/api/dictionaries/${id}`, { title });
  }

  removeDictionary(id: string): Observable<unknown> {
    return this.http.delete(`/api/dictionaries/${id}`);
  }

  /** Voices of the server's that read aloud. */
  voices(): Observable<Voice[]> {
    return this.http.get('/api/voices').pipe(map((body) => voiceListSchema.parse(body).voices));
  }

  speech(wanted: SpeechWanted): Observable<Speech> {
    return this.http.post('/api/speech', wanted).pipe(map((body) => speechSchema.parse(body)));
  }

  reading(id: string): Observable<Reading> {
    return this.http
      .get(`/api/documents/${id}/reading`)
      .pipe(map((body) => readingSchema.parse(body)));
  }

  /** Sent also while the window closes, which only fetch can do. */
  async keepReading(id: string, report: ReadingReport): Promise<void> {
    const reply = await fetch(`/api/documents/${id}/reading`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(report),
      keepalive: true,
    });
    if (!reply.ok) throw new Error(`the server answered ${reply.status}`);
  }

  snip(id: string, part: SnipRequest): Observable<PictureFacts> {
    return this.http
      .post(`/api/documents/${id}/snips`, part)
      .pipe(map((body) => pictureFactsSchema.parse(body)));
  }

  /** The file that shows a picture: its pixels, or the PDF that draws it. */
  pictureFile(digest: string, medium: Picture['medium']): Observable<Blob> {
    return this.http.get(picturePath(digest, medium), { responseType: 'blob' });
  }

  fileUrl(id: string): string {
    return new URL(`/api/documents/${id}/file`, location.href).href;
  }

  /** The address of a file that documents have pages of, by its digest. */
  sourceUrl(digest: string): string {
    return new URL(sourcePath(digest), location.href).href;
  }

  /** Miniatures of some pages of a file on one picture; undefined while they are not drawn. */
  miniatures(digest: string, tray: number): Observable<Blob | undefined> {
    return this.http
      .get(`/api/sources/${digest}/miniatures/${tray}`, { responseType: 'blob' })
      .pipe(map((picture) => picture ?? undefined));
  }

  /** Takes in a PDF whose pages are to be put in. */
  takePages(file: File, password?: string): Observable<PageSupplyBody> {
    return this.http
      .post('/api/sources', fileForm(file, file.name, { password }))
      .pipe(map((body) => pageSupplySchema.parse(body)));
  }

  makePaper(paper: Paper): Observable<PageSupplyBody> {
    return this.http.post('/api/papers', paper).pipe(map((body) => pageSupplySchema.parse(body)));
  }

  /** Makes a document of paper. */
  makeNotebook(wanted: NotebookWanted): Observable<DocumentSummary> {
    return this.http
      .post('/api/notebooks', wanted)
      .pipe(map((body) => documentSummarySchema.parse(body)));
  }

  companion(id: string): Observable<Companion> {
    return this.http
      .get(`/api/documents/${id}/companion`)
      .pipe(map((body) => companionAnswerSchema.parse(body).companion));
  }

  keepCompanion(id: string, companionId: string | null): Observable<void> {
    return this.http
      .put(`/api/documents/${id}/companion`, { companionId })
      .pipe(map(() => undefined));
  }

  /** Finds words in all documents, from the n-th best on; or in one of them. */
  find(
    { folder, ...search }: Search,
    { from, document }: { readonly from?: number; readonly document?: string } = {},
  ): Observable<FindResult> {
    const params = {
      ...search,
      ...(folder === undefined ? {} : { folder }),
      ...(from === undefined ? {} : { from }),
      ...(document === undefined ? {} : { document }),
    };
    return this.http.get('/api/find', { params }).pipe(map((body) => findResultSchema.parse(body)));
  }

  folders(): Observable<FolderList> {
    return this.http.get('/api/folders').pipe(map((body) => folderListSchema.parse(body)));
  }

  /** Makes a folder, or changes it. */
  keepFolder({ id, ...folder }: Folder): Observable<void> {
    return this.http.put(`/api/folders/${id}`, folder).pipe(map(() => undefined));
  }

  removeFolder(id: string): Observable<void> {
    return this.http.delete(`/api/folders/${id}`).pipe(map(() => undefined));
  }

  putInFolder(documentId: string, folderId: string | null): Observable<void> {
    return this.http
      .put(`/api/documents/${documentId}/folder`, { folderId })
      .pipe(map(() => undefined));
  }

  /** Documents whose text has not all been read. */
  indexing(): Observable<IndexingState> {
    return this.http.get('/api/indexing').pipe(map((body) => indexingSchema.parse(body)));
  }

  searches(): Observable<SavedSearch[]> {
    return this.http
      .get('/api/searches')
      .pipe(map((body) => savedSearchListSchema.parse(body).searches));
  }

  saveSearch({ id, ...saved }: SavedSearch): Observable<void> {
    return this.http.put(`/api/searches/${id}`, saved).pipe(map(() => undefined));
  }

  forgetSearch(id: string): Observable<void> {
    return this.http.delete(`/api/searches/${id}`).pipe(map(() => undefined));
  }

  exportUrl(id: string, { mode, keepsNotes }: ExportHow, isConfirmed: boolean): string {
    const query = `annotations=${mode}&notes=${keepsNotes}&confirmed=${isConfirmed}`;
    return `/api/documents/${id}/export?${query}`;
  }

  /** What an export would leave out or break. */
  exportReport(id: string, { mode, keepsNotes }: ExportHow): Observable<ExportReport> {
    return this.http
      .get(`/api/documents/${id}/export/report`, {
        params: { annotations: mode, notes: keepsNotes },
      })
      .pipe(map((body) => exportReportSchema.parse(body)));
  }

  /** The files inside a document. */
  filesInside(id: string): Observable<AttachmentFile[]> {
    return this.http
      .get(`/api/documents/${id}/files`)
      .pipe(map((body) => attachmentListSchema.parse(body).files));
  }

  fileInsideUrl(id: string, index: number): string {
    return `/api/documents/${id}/files/${index}`;
  }

  /** Under which addresses other devices of the network have this server. */
  addresses(): Observable<string[]> {
    return this.http
      .get('/api/addresses')
      .pipe(map((body) => addressListSchema.parse(body).addresses));
  }

  coverUrl(document: DocumentSummary): string {
    return `/api/documents/${document.id}/cover?revision=${document.revision}`;
  }
}
