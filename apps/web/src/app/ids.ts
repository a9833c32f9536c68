import { nanoid } from '@reduxjs/toolkit';

/** A fresh id for something in a lesson. */
export const makeId = (): string => nanoid(10).replace(/[^\w-]/g, '_');
