import contentDisposition from 'content-disposition';
import sanitize from 'sanitize-filename';

/** How a file that is sent is to be taken, and what it is called: safe on every system, also beyond ASCII (RFC 6266, RFC 8187). */
export function dispositionFor(name: string, type: 'inline' | 'attachment'): string {
  // Half of a pair is no character (Unicode, 3.9).
  const safe = sanitize(name.replace(/\p{Cs}/gu, ' '), { replacement: ' ' }).trim();
  const whole = safe || 'document';
  return contentDisposition(whole, { type, fallback: whole.replace(/[^\x20-\x7e]/g, '_') });
}
