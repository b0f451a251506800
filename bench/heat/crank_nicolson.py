"""The benchmark's problem by Crank-Nicolson with a sparse direct solver, and the seconds it takes.

Reads the binary file that adi.c reads; prints seconds and writes the final temperatures.
"""
import sys
import time

import numpy
import scipy.sparse as sparse
from scipy.sparse.linalg import splu

with open(sys.argv[1], "rb") as f:
    nx, ny, nz, steps, faces = numpy.fromfile(f, numpy.int32, 5)
    plane = nx * ny
    n = plane * nz
    gx, gy, gz, capacity = (numpy.fromfile(f, float, n) for _ in range(4))
    cell = numpy.fromfile(f, numpy.int32, faces)
    face_air, face_c = (numpy.fromfile(f, float, faces) for _ in range(2))
    start_c = numpy.fromfile(f, float, 1)[0]
    lengths = numpy.fromfile(f, float, steps)

start = time.perf_counter()
matrix = sparse.csc_matrix((n, n))
for g, stride in ((gx, 1), (gy, nx), (gz, plane)):
    between = sparse.diags([-g[: n - stride], -g[: n - stride]], [stride, -stride], format="csc")
    matrix = matrix + between - sparse.diags([numpy.asarray(between.sum(axis=1)).ravel()], [0], format="csc")
air = numpy.zeros(n)
source = numpy.zeros(n)
numpy.add.at(air, cell, face_air)
numpy.add.at(source, cell, face_air * face_c)
matrix = matrix + sparse.diags([air], [0], format="csc")
temps = numpy.full(n, start_c)
factors = {}
for length in lengths:
    if length not in factors:
        factors[length] = splu((sparse.diags([capacity], [0]) + length / 2 * matrix).tocsc())
    temps = factors[length].solve(capacity * temps - length / 2 * (matrix @ temps) + length * source)
print(time.perf_counter() - start)
temps.tofile(sys.argv[2])
