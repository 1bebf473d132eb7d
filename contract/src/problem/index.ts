// Without schemas: the first page reads it.

/** The code of a problem that is of no request: the database takes nothing just now. */
export const NOT_RECORDING = 'not-recording';
