// Without schemas: the first page reads it.

/** The code of a problem that is of no request: the database takes nothing just now. */
export const NOT_RECORDING = 'not-recording';

/**
 * What a problem is called where nothing narrower is said, by its status. A code stays what it is from version to version;
 * the words beside it are for people.
 */
export const problemCodes: Readonly<Record<number, string>> = {
  400: 'not-readable',
  401: 'not-signed-in',
  403: 'not-allowed',
  404: 'not-found',
  405: 'not-this-method',
  409: 'changed-meanwhile',
  413: 'too-large',
  415: 'not-this-type',
  422: 'refused',
  429: 'too-many',
  499: 'left',
  500: 'broke',
  503: 'not-now',
};

/** A problem’s code as a URI. @source RFC 9457, section 3.1.1 */
export const problemType = (code: string): string => `urn:lanternwright:problem:${code}`;
