/**
 * The movements of the pen that an event stands for. Over plain HTTP browsers tell only the last of them: there
 * `getCoalescedEvents` does not exist (Pointer Events 3, “SecureContext”).
 */
export function movementsIn(event: PointerEvent): readonly PointerEvent[] {
  const { getCoalescedEvents } = event as Partial<PointerEvent>;
  const coalesced = getCoalescedEvents?.call(event) ?? [];
  return coalesced.length > 0 ? coalesced : [event];
}

/** Where the browser thinks the pen will be, up to `ahead` ms after an event; nothing over plain HTTP. */
export function predictedIn(event: PointerEvent, ahead: number): readonly PointerEvent[] {
  const { getPredictedEvents } = event as Partial<PointerEvent>;
  const predicted = getPredictedEvents?.call(event) ?? [];
  return predicted.filter(({ timeStamp }) => timeStamp - event.timeStamp <= ahead);
}
