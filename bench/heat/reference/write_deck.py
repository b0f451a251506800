"""Writes the CalculiX deck of the plate with a block that the solver's tests are held against.

Plate 40 x 40 x 0.8 mm, k 55/55/0.4 W/mK, 2.3e6 J/m3K; block 10 x 10 x 0.8 mm on its centre, k 0.8, 1.7e6; film 150 W/m2K to
350 degC on the block's top, 12 W/m2K to 25 degC on every other face; 25 degC at the start; 120 s.

    python3 write_deck.py 1.0 0.5 > plate.inp     cell in the plane and step, mm and s
    ccx plate                                      CalculiX 2.20 (Debian package calculix-ccx)
    python3 read_result.py plate.dat

The values in the tests are extrapolated from cells of 1 and 0.5 mm (second order) and steps of 0.5 and 0.25 s.
Units in the deck: mm, s, K, mJ, mW; so k in mW/mmK, heat capacity in mJ/mm3K, film in mW/mm2K.
"""
import sys

cell, step = float(sys.argv[1]), float(sys.argv[2])
PLATE, BLOCK, THICK = 40.0, 10.0, 0.8
PLATE_LAYERS, BLOCK_LAYERS = 4, 4
n = round(PLATE / cell)
first, last = round((PLATE - BLOCK) / 2 / cell), round((PLATE + BLOCK) / 2 / cell)
layers = PLATE_LAYERS + BLOCK_LAYERS


def is_block(i, j):
    return first <= i < last and first <= j < last


def exists(i, j, k):
    return 0 <= i < n and 0 <= j < n and 0 <= k < layers and (k < PLATE_LAYERS or is_block(i, j))


def node(i, j, k):
    return 1 + i + (n + 1) * (j + (n + 1) * k)


nodes, elements, films = {}, [], []
for k in range(layers):
    for j in range(n):
        for i in range(n):
            if not exists(i, j, k):
                continue
            corners = [(i, j, k), (i + 1, j, k), (i + 1, j + 1, k), (i, j + 1, k)]
            corners += [(a, b, c + 1) for a, b, c in corners]
            for a, b, c in corners:
                nodes[node(a, b, c)] = (a * cell, b * cell, c * THICK / PLATE_LAYERS)
            number = len(elements) + 1
            elements.append((number, "PLATE" if k < PLATE_LAYERS else "BLOCK", [node(*c) for c in corners]))
            sides = {1: (0, 0, -1), 2: (0, 0, 1), 3: (0, -1, 0), 4: (1, 0, 0), 5: (0, 1, 0), 6: (-1, 0, 0)}
            for face, (a, b, c) in sides.items():
                if not exists(i + a, j + b, k + c):
                    hot = face == 2 and k == layers - 1
                    films.append((number, face, 350 if hot else 25, 0.150 if hot else 0.012))

print("*NODE")
for number, (x, y, z) in sorted(nodes.items()):
    print(f"{number},{x:.6f},{y:.6f},{z:.6f}")
for name in ("PLATE", "BLOCK"):
    print(f"*ELEMENT,TYPE=C3D8,ELSET={name}")
    for number, of, corners in elements:
        if of == name:
            print(f"{number}," + ",".join(map(str, corners)))
print("*MATERIAL,NAME=BOARD\n*CONDUCTIVITY,TYPE=ORTHO\n55,55,0.4\n*DENSITY\n1\n*SPECIFIC HEAT\n2.3")
print("*MATERIAL,NAME=MOULD\n*CONDUCTIVITY\n0.8\n*DENSITY\n1\n*SPECIFIC HEAT\n1.7")
print("*SOLID SECTION,ELSET=PLATE,MATERIAL=BOARD\n*SOLID SECTION,ELSET=BLOCK,MATERIAL=MOULD")
print("*NSET,NSET=ALL,GENERATE\n1," + str(max(nodes)))
middle, at8, at15 = n // 2, n // 2 + round(8 / cell), n // 2 + round(15 / cell)
probes = [(middle, PLATE_LAYERS), (at8, PLATE_LAYERS), (at8, 0), (at15, PLATE_LAYERS), (at15, 0)]
print("*NSET,NSET=PROBES")
print(",".join(str(node(i, n // 2, k)) for i, k in probes))
print("*INITIAL CONDITIONS,TYPE=TEMPERATURE\nALL,25")
print(f"*STEP,INC=100000\n*HEAT TRANSFER,DIRECT\n{step},120")
print("*FILM")
for number, face, air, film in films:
    print(f"{number},F{face},{air},{film}")
print(f"*NODE PRINT,NSET=PROBES,FREQUENCY={round(10 / step)}\nNT\n*END STEP")
