/**
 * Sent with everything a student's device asks of their own. In a file of its own: the follow page
 * carries no schema library.
 */
export const STUDENT_HEADER = 'x-zest-student';
