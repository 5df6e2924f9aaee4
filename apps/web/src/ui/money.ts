const writers = new Map<string, Intl.NumberFormat>()

/** A sum in the garden's currency, as the reader's language writes it. */
export function formatMoney(amount: number, currency: string): string {
  // To make a writer takes as long as to write a hundred sums.
  let writer = writers.get(currency)
  if (!writer) {
    writer = new Intl.NumberFormat(undefined, { style: 'currency', currency })
    writers.set(currency, writer)
  }
  return writer.format(amount)
}
