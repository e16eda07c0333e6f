import { noAnnotations, repliesTo, type DocumentState, type Effect } from '@stylet/core/document';

/** What becomes of replies when effects are carried out: they go, and move to another page, with what they answer. */
export function repliesAlong(state: DocumentState, effects: readonly Effect[]): Effect[] {
  const touched = new Set<string>();
  const gone = new Map<string, Set<string>>();
  const movedTo = new Map<string, string>();
  for (const effect of effects) {
    if (effect.type === 'annotation.add') {
      touched.add(effect.annotation.id);
      movedTo.set(effect.annotation.id, effect.annotation.pageId);
    }
    if (effect.type !== 'annotation.remove') continue;
    touched.add(effect.annotationId);
    add(gone, effect.pageId, effect.annotationId);
  }
  return [
    ...[...gone].flatMap(([pageId, ids]) => {
      // What is taken away and put there again stays, on whatever page: its replies follow it.
      const going = new Set([...ids].filter((id) => !movedTo.has(id)));
      return repliesTo(state.annotations[pageId] ?? noAnnotations, going)
        .filter(({ id }) => !touched.has(id))
        .map(({ id }): Effect => ({ type: 'annotation.remove', pageId, annotationId: id }));
    }),
    ...Object.entries(state.annotations).flatMap(([pageId, page]) => {
      const leaving = new Set(
        [...movedTo].flatMap(([id, to]) => (to !== pageId && id in page ? id : [])),
      );
      if (leaving.size === 0) return [];
      return repliesTo(page, leaving)
        .filter(({ id }) => !touched.has(id))
        .map((reply): Effect => {
          const to = movedTo.get(rootAmong(reply.to, leaving, page)) ?? pageId;
          return { type: 'annotation.add', annotation: { ...reply, pageId: to } };
        });
    }),
  ];
}

/** Which of those that leave a reply follows. */
function rootAmong(
  id: string,
  leaving: ReadonlySet<string>,
  page: DocumentState['annotations'][string],
): string {
  let at = id;
  const passed = new Set<string>();
  while (!leaving.has(at) && !passed.has(at)) {
    passed.add(at);
    const one = page[at];
    if (one?.kind !== 'reply') break;
    at = one.to;
  }
  return at;
}

function add(sets: Map<string, Set<string>>, key: string, value: string): void {
  const known = sets.get(key);
  if (known) known.add(value);
  else sets.set(key, new Set([value]));
}
