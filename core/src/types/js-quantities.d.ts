/** The part of js-quantities that is used here. */
declare module 'js-quantities' {
  interface Quantity {
    to(unit: string): Quantity;
    readonly scalar: number;
  }
  const Qty: (value: number, unit: string) => Quantity;
  export default Qty;
}
