/** Classes of a choice that is pressed on or off: 48 px high, as a button is. */
export const chipLook = (on: boolean): string =>
  `min-h-12 rounded-md border px-3 text-14 ${on ? 'border-lamp-edge bg-lamp font-semibold' : 'border-edge bg-panel'}`;
