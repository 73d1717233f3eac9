import { z } from 'zod';

/** The id of a row, as a browser sends it back. */
export const rowSchema = z.uuid('There is no such thing: load the page anew.');
