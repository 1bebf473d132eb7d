/** A cell that a spreadsheet would take for a formula is made text. */
export const csvCell = (text: string) => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);
