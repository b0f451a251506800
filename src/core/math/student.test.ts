import { logGamma, regularisedBeta, studentT } from './student';

test.each([
  // Student's t table, two-sided 95 % (science.md values; the same in every published table).
  [0.95, 1, 12.706],
  [0.95, 2, 4.303],
  [0.95, 4, 2.776],
  [0.95, 9, 2.262],
  [0.95, 29, 2.045],
  // Two-sided 90 and 99 %: Abramowitz & Stegun, table 26.10 (from memory).
  [0.9, 5, 2.015],
  [0.99, 5, 4.032],
  [0.99, 10, 3.169],
  [0.95, 120, 1.98],
])('t(%s, %s) = %s as tabled', (confidence, degrees, tabled) => {
  expect(studentT(confidence, degrees)).toBeCloseTo(tabled, 3);
});

test('with one degree of freedom it is the Cauchy quantile, tan(π·confidence/2)', () => {
  for (const confidence of [0.1, 0.5, 0.9, 0.95, 0.999])
    expect(studentT(confidence, 1)).toBeCloseTo(Math.tan((Math.PI * confidence) / 2), 6);
});

test('with two degrees of freedom it has the closed form c·√(2/(1−c²))', () => {
  for (const c of [0.2, 0.8, 0.95]) expect(studentT(c, 2)).toBeCloseTo(c * Math.sqrt(2 / (1 - c * c)), 9);
});

test('many degrees of freedom come to the normal quantile', () => {
  expect(studentT(0.95, 1e7)).toBeCloseTo(1.959964, 5);
});

test('log gamma gives factorials, and the half by √π', () => {
  let factorial = 1;
  for (let n = 1; n < 20; n++) {
    factorial *= n;
    expect(logGamma(n + 1)).toBeCloseTo(Math.log(factorial), 11);
  }
  expect(logGamma(0.5)).toBeCloseTo(0.5 * Math.log(Math.PI), 12);
});

test('the incomplete beta function: I(x;1,1) = x, I(x;2,1) = x², and its mirror', () => {
  for (const x of [0.01, 0.3, 0.77, 0.99]) {
    expect(regularisedBeta(x, 1, 1)).toBeCloseTo(x, 12);
    expect(regularisedBeta(x, 2, 1)).toBeCloseTo(x * x, 12);
    expect(regularisedBeta(x, 3.5, 1.25)).toBeCloseTo(1 - regularisedBeta(1 - x, 1.25, 3.5), 12);
  }
  expect([regularisedBeta(0, 2, 3), regularisedBeta(1, 2, 3)]).toEqual([0, 1]);
});

test('figures outside its range are a programmer’s error', () => {
  expect(() => studentT(1, 4)).toThrow('between 0 and 1');
  expect(() => studentT(0.95, 0)).toThrow('one degree of freedom');
});
