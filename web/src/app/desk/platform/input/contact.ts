/** A contact wider than this, in CSS pixels, is a palm. Common practice, no source. */
const PALM = 60;

/** How wide what touches the glass is (W3C Pointer Events 3, `width` and `height`); CSS pixels. */
export const contactOf = ({ width, height }: PointerEvent): number => Math.max(width, height);

/** Whether a contact of so many CSS pixels is a palm. */
export const isPalm = (contact: number): boolean => contact > PALM;

export const isTouch = ({ pointerType }: PointerEvent): boolean => pointerType === 'touch';
