"""A straightforward numpy account of a journal's orbit, to hold speed and film of the shipped one against.

Reads JSON from the standard input, writes JSON: the thinnest film and the seconds of one run. The short bearing under a pi film:
at every stage the velocity whose film pressure, summed round the bearing, carries the load is found by Newton's method.
"""

import json
import sys
import time

import numpy as np

given = json.load(sys.stdin)
fx, fy, speed = (np.array(given[k]) for k in ("x", "y", "speed"))
steps = len(fx)
dt = given["periodS"] / steps
c, r, length, mu = given["clearanceM"], given["diameterM"] / 2, given["lengthM"], given["viscosityPaS"]
around = np.linspace(0, 2 * np.pi, 180, endpoint=False)
cos, sin = np.cos(around), np.sin(around)
stiff = mu * length**3 * r / c**3 * (2 * np.pi / len(around))


def squeeze(e, load, guess):
    """Velocity (of the clearance a second) whose pressure carries the load."""
    h3 = (1 - e[0] * cos - e[1] * sin) ** 3
    v = guess
    for _ in range(30):
        closing = v[0] * cos + v[1] * sin
        p = np.where(closing > 0, closing / h3, 0) * stiff * c
        off = np.array([p @ cos, p @ sin]) - load
        if np.hypot(*off) < 1e-9 * np.hypot(*load):
            break
        k = np.where(closing > 0, stiff * c / h3, 0)
        m = np.array([[k @ (cos * cos), k @ (cos * sin)], [k @ (cos * sin), k @ (sin * sin)]])
        v = v - np.linalg.solve(m, off)
    return v


def run():
    e = np.array([0.3, 0.0])
    least, before = 1.0, None
    for _ in range(20):
        orbit = np.empty((steps, 2))
        guess = np.array([fx[0], fy[0]]) * 1e-3
        for i in range(steps):
            orbit[i] = e
            j = (i + 1) % steps

            def velocity(at, u):
                load = np.array([fx[i] + u * (fx[j] - fx[i]), fy[i] + u * (fy[j] - fy[i])])
                turning = (speed[i] + u * (speed[j] - speed[i])) / 2
                return squeeze(at, load, guess) + turning * np.array([-at[1], at[0]])

            k1 = velocity(e, 0)
            k2 = velocity(e + dt / 2 * k1, 0.5)
            k3 = velocity(e + dt / 2 * k2, 0.5)
            k4 = velocity(e + dt * k3, 1)
            e = e + dt / 6 * (k1 + 2 * k2 + 2 * k3 + k4)
        least = 1 - np.hypot(orbit[:, 0], orbit[:, 1]).max()
        if before is not None and np.abs(orbit - before).max() < 1e-4:
            break
        before = orbit
    return least * c


start = time.perf_counter()
film = run()
json.dump({"filmUm": film * 1e6, "seconds": time.perf_counter() - start}, sys.stdout)
