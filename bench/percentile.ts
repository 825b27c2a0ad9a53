/** The value below which a share of them lies. */
export const percentile = (values: number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];
