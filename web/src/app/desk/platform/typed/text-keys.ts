import type { Look } from '@stylet/core/typed';
import { redo, undo } from 'prosemirror-history';
import type { Command } from 'prosemirror-state';
import { indentBy, lineBreak, tab, toggleLook } from './text-commands';

/** What keys do wherever text is typed; `base` is the look of what has none of its own. */
export function textKeys(base: () => Look, end: () => void): Record<string, Command> {
  const toggled = (key: 'bold' | 'italic' | 'underline'): Command => toggleLook(key, base);
  return {
    'Mod-z': undo,
    'Mod-y': redo,
    'Mod-Shift-z': redo,
    'Mod-b': toggled('bold'),
    'Mod-i': toggled('italic'),
    'Mod-u': toggled('underline'),
    'Shift-Enter': lineBreak,
    Tab: tab,
    'Shift-Tab': indentBy(-1),
    Escape: () => {
      end();
      return true;
    },
  };
}
