/** Money with whose it is: cents where they count, "9.50 EUR", "340 EUR"; without a word where nobody said whose. */
export function sayMoney(amount: number, currency: string | undefined): string {
  const digits = Math.abs(amount) < 10 ? 2 : 0;
  return `${amount.toFixed(digits)}${currency ? ` ${currency}` : ''}`;
}
