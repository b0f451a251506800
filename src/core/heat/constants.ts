/** Stefan–Boltzmann constant, W/m²K⁴. Source: CODATA 2018. */
export const STEFAN_BOLTZMANN = 5.670374419e-8;
