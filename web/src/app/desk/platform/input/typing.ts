/** Fields of a form that take no keys but the space bar. */
const SWITCHES = /^(checkbox|radio|button|file|color)$/;

/** Whether somebody is typing or choosing there: what keys and the clipboard do is the field's own business. */
export function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement) return !SWITCHES.test(target.type);
  return (
    target.isContentEditable ||
    /^(TEXTAREA|SELECT)$/.test(target.tagName) ||
    target.role === 'combobox'
  );
}
