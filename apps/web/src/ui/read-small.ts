/** A list of prices or readings, or one frame, has a thousandth of this; more would only hold the page up. */
const MOST_BYTES = 4_000_000

/** The text of a file from this device, or null for one that is too large to be what was asked for. */
export async function readSmall(file: File): Promise<string | null> {
  return file.size > MOST_BYTES ? null : file.text()
}
