/** The part of jStat that the tests compare with. */
declare module 'jstat' {
  export const jStat: {
    readonly poisson: { cdf(n: number, mean: number): number };
    readonly normal: { inv(p: number, mean: number, sd: number): number };
    readonly beta: {
      inv(p: number, a: number, b: number): number;
      mean(a: number, b: number): number;
    };
  };
}
