import { DestroyRef, inject } from '@angular/core';
import editReply from '@material-symbols/svg-400/outlined/edit.svg';
import removeReply from '@material-symbols/svg-400/outlined/delete.svg';
import { canBeRepliedTo, type Annotation } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { screenToPage } from '../../platform/paper/page-geometry';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { PagesOnScreen } from '../../platform/view/pages-on-screen';
import { transform } from '@stylet/core/geometry';
import { Margin } from './margin';
import { noteIcon } from './note-icon';
import { NoteInHand } from './note-in-hand';
import { NoteTool } from './note-tool';
import { Notes } from './notes';
import { repliesAlong } from './replies-along';

/** Notes in the margin, and what is said to anything on a page. */
export const notes: DeskFeature = {
  id: 'notes',
  providers: [Margin, NoteInHand, NoteTool, Notes],
  icons: { editReply, notes: noteIcon, removeReply },
  tools: [
    {
      id: 'note',
      name: 'Note',
      icon: 'notes',
      key: 'M',
      help: 'put a note where you tap, or open the one there',
      cursor: 'copy',
      tool: () => inject(NoteTool),
    },
  ],
  starts: () => {
    const state = inject(Store).selectSignal(documentFeature.selectState);
    const release = inject(Editing).alongWith((effects) => repliesAlong(state(), effects));
    inject(DestroyRef).onDestroy(release);
  },
  // A press on a page ends what is typed before it does anything else.
  pressed: () => {
    const hand = inject(NoteInHand);
    return () => hand.end();
  },
  goneTo: () => {
    const own = inject(Notes);
    return ([one, ...others]: readonly Annotation[]) => {
      const isThread =
        one !== undefined &&
        others.length === 0 &&
        own.threads(one.pageId).some(({ root }) => root.id === one.id);
      if (isThread) own.open(one);
    };
  },
  onPages: [
    {
      id: 'notes.marks',
      order: 25,
      load: () => import('./note-marks').then((m) => m.NoteMarks),
      shows: () => {
        const own = inject(Notes);
        return ({ id }) => own.threads(id).length > 0;
      },
    },
  ],
  overlays: [
    {
      id: 'notes.margin',
      in: 'pages',
      load: () => import('./margin-column').then((m) => m.MarginColumn),
      shows: () => inject(Notes).isOpen,
    },
    {
      id: 'notes.line',
      in: 'pages',
      load: () => import('./note-line').then((m) => m.NoteLine),
      shows: () => {
        const { isOpen, active } = inject(Notes);
        return () => isOpen() && active() !== undefined;
      },
    },
  ],
  commands: [
    {
      id: 'notes.margin',
      keys: ['shift+m'],
      help: [{ keys: 'Shift+M', does: 'show the margin, with what was said on the pages in view' }],
      menu: { in: 'view', name: 'Margin', order: 45 },
      command: () => {
        const own = inject(Notes);
        return { run: () => own.toggleMargin(), isOn: own.isOpen };
      },
    },
    {
      id: 'notes.close',
      keys: ['escape'],
      rank: 30,
      command: () => {
        const own = inject(Notes);
        return { can: () => own.active() !== undefined, run: () => own.close() };
      },
    },
  ],
  selectionActions: [
    {
      id: 'notes',
      icon: 'notes',
      inIndex: 'Open the note, or write one …',
      order: 15,
      action: () => {
        const [own, selection] = [inject(Notes), inject(AnnotationSelection)];
        const target = (): Annotation | undefined =>
          selection.annotations().findLast(canBeRepliedTo);
        return {
          name: () => (target()?.kind === 'note' ? 'Open the note' : 'Note'),
          tip: () => (target()?.kind === 'note' ? '' : 'Say something to what is selected'),
          isThere: () => target() !== undefined,
          run: () => {
            const to = target()!;
            if (to.kind === 'note' || own.threads(to.pageId).some(({ root }) => root.id === to.id))
              own.open(to);
            else own.beginReply(to);
          },
        };
      },
    },
  ],
  wordActions: [
    {
      id: 'notes',
      icon: 'notes',
      order: 25,
      action: () => {
        const own = inject(Notes);
        return { name: () => 'Note', isForMarks: true, run: () => own.beginOnWords() };
      },
    },
  ],
  pageMenu: [
    {
      id: 'notes',
      name: 'Put a note here',
      icon: 'notes',
      order: 25,
      run: () => {
        const [own, screen] = [inject(Notes), inject(PagesOnScreen)];
        return (page, at) => {
          const rect = screen.find(page.id)?.rect;
          if (rect) own.begin(page.id, transform(screenToPage(page, rect), at));
        };
      },
    },
  ],
};
