/** A schedule as it is drawn anywhere. */
export const drawn = (weights: number[]) =>
  weights.map((weight, i) => ({
    position: i + 1,
    deposit: false,
    amount: { amount: '0', currency: 'EUR' },
    dueOn: '2027-01-01',
    weight,
  }));
