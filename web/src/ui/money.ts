/** An amount with two decimals, and its currency (ISO 4217) before it where there is one. */
export function moneyText(amount: number, currency = ""): string {
  const written = amount.toLocaleString(undefined, { minimumFractionDigits: 2, maximumFractionDigits: 2 });
  return `${currency} ${written}`.trim();
}
