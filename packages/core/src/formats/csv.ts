/** Of Unicode: control and format characters, blanks, and the four signs, in their full-width forms too. */
const FORMULA = /^(?:\p{C}|[\s\p{Z}]*[=+\-@\uff1d\uff0b\uff0d\uff20])/u

/** A field as RFC 4180 wants it: quoted where it holds a comma, a quote or a line break, quotes doubled. */
function field(value: string | number): string {
  const text = String(value)
  // Text that a spreadsheet would run as a formula, at once or after dropping what it takes for blanks, is
  // marked as text; numbers may be negative.
  const safe = typeof value === 'string' && FORMULA.test(text) ? `'${text}` : text
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe
}

/**
 * Rows as RFC 4180 text: a header line, lines ended by CRLF. Every row must have as many fields as the
 * header.
 */
export function toCsv(header: readonly string[], rows: readonly (readonly (string | number)[])[]): string {
  return [header, ...rows].map((row) => row.map(field).join(',') + '\r\n').join('')
}
