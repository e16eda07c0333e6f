import { saidIn, type Thread } from '@stylet/core/document';
import { replyCount } from '../../platform/selection/reply-count';
import { stateNames } from '../../platform/selection/state-names';

/** What was said to something, and what it is set to, in a few words. */
export function threadWords(thread: Thread | undefined): string {
  if (!thread) return '';
  const count = saidIn(thread).length;
  const state = thread.state?.state;
  return [
    count === 0 ? '' : replyCount(count),
    state ? stateNames[state] : '',
    thread.isMarked ? stateNames.marked : '',
  ]
    .filter(Boolean)
    .join(' · ');
}
