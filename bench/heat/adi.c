/* The transient heat scheme of src/core/heat in C, double precision, for the wall-time ratio that the benchmark prints.
   Reads the assembled problem from a binary file and writes the final temperatures:
   int32 nx ny nz nsteps nfaces; double gx[n] gy[n] gz[n] capacity[n]; int32 cell[nfaces]; double air[nfaces] airC[nfaces];
   double startC; then nsteps doubles of step length. */
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>

static double *readDoubles(FILE *f, long n) {
  double *a = malloc(n * sizeof *a);
  if (fread(a, sizeof *a, n, f) != (size_t)n) exit(3);
  return a;
}

typedef struct { double stepS; double *lx, *ix, *ly, *iy, *lz, *iz; } Factors;

static void factor(double w, const double *g, const double *c, const double *air, long n, long stride, long first, long period, double *lower, double *inverse) {
  for (long i = 0; i < n; i++) {
    int isFirst = (i % period) < first;
    double before = isFirst ? 0 : g[i - stride];
    double diagonal = c[i] + w * (before + g[i] + (air ? air[i] : 0));
    lower[i] = 0;
    if (before > 0) {
      lower[i] = -w * before * inverse[i - stride];
      diagonal += lower[i] * w * before;
    }
    inverse[i] = 1 / diagonal;
  }
}

int main(int argc, char **argv) {
  if (argc < 3) return 2;
  FILE *f = fopen(argv[1], "rb");
  int dims[5];
  if (!f || fread(dims, sizeof(int), 5, f) != 5) return 3;
  long nx = dims[0], ny = dims[1], nz = dims[2], steps = dims[3], faces = dims[4], plane = nx * ny, n = plane * nz;
  double *gx0 = readDoubles(f, n), *gy0 = readDoubles(f, n), *gz0 = readDoubles(f, n), *c = readDoubles(f, n);
  int *cell = malloc(faces * sizeof *cell);
  if (fread(cell, sizeof *cell, faces, f) != (size_t)faces) return 3;
  double *faceAir = readDoubles(f, faces), *faceC = readDoubles(f, faces), *startC = readDoubles(f, 1), *lengths = readDoubles(f, steps);
  fclose(f);

  long padded = n + 2 * plane;
  double *t = calloc(padded, sizeof *t), *gx = calloc(padded, sizeof *gx), *gy = calloc(padded, sizeof *gy), *gz = calloc(padded, sizeof *gz);
  memcpy(gx + plane, gx0, n * sizeof *gx);
  memcpy(gy + plane, gy0, n * sizeof *gy);
  memcpy(gz + plane, gz0, n * sizeof *gz);
  for (long i = 0; i < n; i++) t[plane + i] = *startC;
  double *d = malloc(n * sizeof *d), *air = calloc(n, sizeof *air);
  for (long q = 0; q < faces; q++) air[cell[q]] += faceAir[q];

  struct timespec a, b;
  clock_gettime(CLOCK_MONOTONIC, &a);
  Factors kept[8];
  int count = 0;
  for (long s = 0; s < steps; s++) {
    double stepS = lengths[s];
    Factors *k = NULL;
    for (int q = 0; q < count; q++) if (kept[q].stepS == stepS) k = &kept[q];
    if (!k) {
      k = &kept[count++];
      k->stepS = stepS;
      double **slot[] = {&k->lx, &k->ix, &k->ly, &k->iy, &k->lz, &k->iz};
      for (int q = 0; q < 6; q++) *slot[q] = malloc(n * sizeof(double));
      factor(0.5 * stepS, gx0, c, NULL, n, 1, 1, nx, k->lx, k->ix);
      factor(0.5 * stepS, gy0, c, NULL, n, nx, nx, plane, k->ly, k->iy);
      factor(0.5 * stepS, gz0, c, air, n, plane, plane, n, k->lz, k->iz);
    }
    for (long i = 0, j = plane; i < n; i++, j++) {
      double tj = t[j];
      d[i] = stepS * (gx[j] * (t[j + 1] - tj) + gx[j - 1] * (t[j - 1] - tj) + gy[j] * (t[j + nx] - tj) + gy[j - nx] * (t[j - nx] - tj) + gz[j] * (t[j + plane] - tj) + gz[j - plane] * (t[j - plane] - tj));
    }
    double *temps = t + plane;
    for (long q = 0; q < faces; q++) d[cell[q]] += stepS * faceAir[q] * (faceC[q] - temps[cell[q]]);
    for (long row = 0; row < n; row += nx) {
      for (long i = row + 1; i < row + nx; i++) d[i] -= k->lx[i] * d[i - 1];
      d[row + nx - 1] *= k->ix[row + nx - 1];
      for (long i = row + nx - 2; i >= row; i--) d[i] = d[i] * k->ix[i] - k->lx[i + 1] * d[i + 1];
    }
    for (long z = 0; z < nz; z++) {
      long start = z * plane, end = start + plane;
      for (long i = start; i < start + nx; i++) d[i] *= c[i];
      for (long i = start + nx; i < end; i++) d[i] = d[i] * c[i] - k->ly[i] * d[i - nx];
      for (long i = end - nx; i < end; i++) d[i] *= k->iy[i];
      for (long i = end - nx - 1; i >= start; i--) d[i] = d[i] * k->iy[i] - k->ly[i + nx] * d[i + nx];
    }
    for (long i = 0; i < plane; i++) d[i] *= c[i];
    for (long i = plane; i < n; i++) d[i] = d[i] * c[i] - k->lz[i] * d[i - plane];
    for (long i = n - plane; i < n; i++) { d[i] *= k->iz[i]; temps[i] += d[i]; }
    for (long i = n - plane - 1; i >= 0; i--) { d[i] = d[i] * k->iz[i] - k->lz[i + plane] * d[i + plane]; temps[i] += d[i]; }
  }
  clock_gettime(CLOCK_MONOTONIC, &b);
  printf("%.9f\n", (b.tv_sec - a.tv_sec) + (b.tv_nsec - a.tv_nsec) * 1e-9);
  FILE *out = fopen(argv[2], "wb");
  fwrite(t + plane, sizeof(double), n, out);
  fclose(out);
  return 0;
}
