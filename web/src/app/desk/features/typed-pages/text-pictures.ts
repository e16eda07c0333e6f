import { Injectable, inject, signal } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { newId } from '@stylet/core/document';
import type { TextPicture } from '@stylet/core/typed-pages';
import { NodeSelection, Plugin, type Command, type EditorState } from 'prosemirror-state';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../../api/api';
import { troubleOf } from '../../../api/problem';
import { schema } from '../../platform/typed/rich-model';
import { putBlocks } from './put-blocks';

/** The picture of a text that is selected. */
export function selectedPicture({ selection }: EditorState): TextPicture | undefined {
  if (!(selection instanceof NodeSelection)) return undefined;
  const block = selection.node.attrs['block'] as TextPicture | undefined;
  return block?.kind === 'picture' ? block : undefined;
}

/** Changes the picture that is selected, which stays so. */
export const changePicture =
  (change: (picture: TextPicture) => TextPicture): Command =>
  (state, dispatch) => {
    const picture = selectedPicture(state);
    if (!picture) return false;
    const { from } = state.selection;
    const tr = state.tr.setNodeMarkup(from, undefined, { block: change(picture) });
    dispatch?.(tr.setSelection(NodeSelection.create(tr.doc, from)));
    return true;
  };

/** Puts pictures behind the paragraph with the caret, or in its place where it is empty; the last one is selected. */
const putPictures =
  (pictures: readonly TextPicture[]): Command =>
  (state, dispatch) => {
    if (pictures.length === 0) return false;
    const nodes = pictures.map((block) => schema.nodes['other'].create({ block }));
    const { tr, at } = putBlocks(state, nodes);
    const last = at + nodes.length - 1;
    dispatch?.(tr.setSelection(NodeSelection.create(tr.doc, last)).scrollIntoView());
    return true;
  };

/** Takes pictures from files into the text of pages. */
@Injectable({ providedIn: 'root' })
export class TextPictures {
  private readonly api = inject(Api);
  private readonly snackBar = inject(MatSnackBar);
  readonly isBusy = signal(false);

  /** The pictures of files, as the server has them, to be put into a text. What cannot be used is told. */
  async taken(files: readonly File[]): Promise<Command> {
    this.isBusy.set(true);
    const pictures: TextPicture[] = [];
    for (const file of files) {
      try {
        const facts = await firstValueFrom(this.api.takePicture(file, file.name));
        pictures.push({ kind: 'picture', id: newId(), ...facts });
      } catch (error) {
        const { title, advice } = troubleOf(error);
        this.snackBar.open(`“${file.name}” was not put in. ${title}. ${advice}`, 'Close');
      }
    }
    this.isBusy.set(false);
    return putPictures(pictures);
  }

  /** Pictures that are pasted into a text. */
  pasting(): Plugin {
    return new Plugin({
      props: {
        handlePaste: (view, { clipboardData }) => {
          const files = [...(clipboardData?.files ?? [])].filter(({ type }) =>
            type.startsWith('image/'),
          );
          if (files.length === 0) return false;
          void this.taken(files).then((put) => {
            if (!view.isDestroyed) put(view.state, view.dispatch);
          });
          return true;
        },
      },
    });
  }
}
