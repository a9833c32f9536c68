/*
 * Milliseconds say from where they count. A moment of one base is not taken for one of another;
 * a plain number (a length, a sum) goes for any.
 */
declare const base: unique symbol;
type Ms<Base extends string> = number & { readonly [base]?: Base };

/** Milliseconds of a take's working copy, from its first frame. */
export type TakeMs = Ms<'take'>;
/** Milliseconds of a block's own time, as planned and filmed, from its first moment. */
export type BlockMs = Ms<'block'>;
/** Milliseconds of the finished video. */
export type VideoMs = Ms<'video'>;
/** Milliseconds of a student's session, which goes on while the video stands at a pause. */
export type StudentMs = Ms<'student'>;
