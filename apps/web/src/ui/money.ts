/** A sum in the garden's currency, as the reader's language writes it. */
export function formatMoney(amount: number, currency: string): string {
  return new Intl.NumberFormat(undefined, { style: 'currency', currency }).format(amount)
}
