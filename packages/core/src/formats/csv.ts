/** A field as RFC 4180 wants it: quoted where it holds a comma, a quote or a line break, quotes doubled. */
function field(value: string | number): string {
  const text = String(value)
  // A leading = + - @ in text would run as a formula when a spreadsheet opens the file; numbers may be negative.
  const safe = typeof value === 'string' && /^[=+\-@\t]/.test(text) ? `'${text}` : text
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe
}

/** Rows as RFC 4180 text: a header line, lines ended by CRLF. Every row must have as many fields as the header. */
export function toCsv(header: readonly string[], rows: readonly (readonly (string | number)[])[]): string {
  return [header, ...rows].map((row) => row.map(field).join(',') + '\r\n').join('')
}
