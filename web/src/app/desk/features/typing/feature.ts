import { inject } from '@angular/core';
import alignBoth from '@material-symbols/svg-400/outlined/format_align_justify.svg';
import alignEnd from '@material-symbols/svg-400/outlined/format_align_right.svg';
import alignMiddle from '@material-symbols/svg-400/outlined/format_align_center.svg';
import alignStart from '@material-symbols/svg-400/outlined/format_align_left.svg';
import textBold from '@material-symbols/svg-400/outlined/format_bold.svg';
import formula from '@material-symbols/svg-400/outlined/function.svg';
import indentLess from '@material-symbols/svg-400/outlined/format_indent_decrease.svg';
import indentMore from '@material-symbols/svg-400/outlined/format_indent_increase.svg';
import textItalic from '@material-symbols/svg-400/outlined/format_italic.svg';
import listBullets from '@material-symbols/svg-400/outlined/format_list_bulleted.svg';
import listNumbers from '@material-symbols/svg-400/outlined/format_list_numbered.svg';
import paragraph from '@material-symbols/svg-400/outlined/format_paragraph.svg';
import textStrike from '@material-symbols/svg-400/outlined/format_strikethrough.svg';
import textUnderline from '@material-symbols/svg-400/outlined/format_underlined.svg';
import listChecks from '@material-symbols/svg-400/outlined/checklist.svg';
import textFrame from '@material-symbols/svg-400/outlined/border_color.svg';
import textLowered from '@material-symbols/svg-400/outlined/subscript.svg';
import textRaised from '@material-symbols/svg-400/outlined/superscript.svg';
import textStyle from '@material-symbols/svg-400/outlined/style.svg';
import textTool from '@material-symbols/svg-400/outlined/match_case.svg';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { BoxSizes } from './box-sizes';
import { StyleChoices } from './style-choices';
import { TextTool } from './text-tool';
import { Typing } from './typing';
import { Widening } from './widening';

/** Types text in boxes on pages. */
export const typing: DeskFeature = {
  id: 'typing',
  providers: [BoxSizes, StyleChoices, TextTool, Typing, Widening],
  icons: {
    ...{ alignBoth, alignEnd, alignMiddle, alignStart, formula, indentLess, indentMore },
    ...{ listBullets, listChecks, listNumbers, paragraph, textBold, textFrame, textItalic },
    ...{ textLowered, textRaised, textStrike, textStyle, textTool, textUnderline },
  },
  tools: [
    {
      id: 'text',
      name: 'Text',
      icon: 'textTool',
      key: 'T',
      help: 'type where you tap, or in the box there',
      cursor: 'text',
      tool: () => inject(TextTool),
    },
  ],
  onPages: [
    {
      id: 'typing',
      order: 75,
      hidesSelection: true,
      load: () => import('./text-editor').then((m) => m.TextEditor),
      shows: () => {
        const { pageId } = inject(Typing);
        return ({ id }) => pageId() === id;
      },
    },
  ],
  overlays: [
    {
      id: 'typing.bar',
      in: 'pages',
      load: () => import('./text-bar').then((m) => m.TextBar),
      shows: () => {
        const { pageId, editor } = inject(Typing);
        return () => pageId() !== undefined && editor() !== undefined;
      },
    },
  ],
  instead: () => {
    const [typed, widened] = [inject(Typing), inject(Widening)];
    return (id) => [typed, widened].find(({ pageId }) => pageId() === id)?.remains();
  },
  sides: () => {
    const widening = inject(Widening);
    return () => (widening.box() ? widening : undefined);
  },
  // A press elsewhere ends it before it does anything else.
  pressed: () => {
    const own = inject(Typing);
    return () => own.end();
  },
  selectionActions: [
    {
      id: 'typing',
      icon: 'textTool',
      order: 25,
      action: () => {
        const [own, { only }] = [inject(Typing), inject(AnnotationSelection)];
        const box = () => {
          const one = only();
          return one?.kind === 'textBox' ? one : undefined;
        };
        return {
          name: () => 'Edit the text',
          isThere: () => box() !== undefined,
          isDisabled: () => box()?.locked === true,
          run: () => own.open(box()!),
        };
      },
    },
    {
      id: 'typing.style',
      icon: 'textStyle',
      order: 26,
      action: () => {
        const styles = inject(StyleChoices);
        return {
          name: () => 'Text style',
          isThere: styles.isThere,
          isDisabled: styles.isLocked,
          choices: styles.all,
          run: () => undefined,
        };
      },
    },
  ],
};
