#!/usr/bin/env python3
"""The thermal network of one wheel in SciPy (LSODA), for the ratio the benchmark quotes: seconds for twelve laps, two wheels, two setups."""
import time

import numpy as np
from scipy.integrate import solve_ivp

n, depth, area, c, beta, k0, kr = 4, 0.008, 0.076, 480.0, 7e-4, 50.0, -4e-4
mass = 7200 * area * depth
per, dx, t0 = mass * c / n, depth / n, 293.15


def rhs(t, x, a, b, d, on):
    v = a + (b - a) * t / d
    p = 0.5 * 1500 * (a - b) / d * v / 2 if on else 0.0
    ring = t0 + (np.sqrt(1 + 2 * beta * x[:n]) - 1) / beta
    hat, lining, back, caliper, fluid, hub = x[n:]
    k = k0 * (1 + kr * (ring - t0))
    hot = ring[0] + (2 * p * 0.96 / area + k[0] * (ring[0] - ring[1]) / dx) * dx / (6 * k[0])
    h = 0.6 * 0.04 * 0.03 / 0.29 * (max(v, 1) * 0.29 / 2e-5) ** 0.8
    q = np.zeros(n)
    across = 2.1 * (1 if on else 0.2) * (hot - lining)
    q[0] += p * 0.96 - across - h * area * (hot - t0)
    flow = (k[:-1] + k[1:]) / 2 * area / dx * (ring[:-1] - ring[1:])
    q[:-1] -= flow
    q[1:] += flow
    to_hat = 4 * (ring[-1] - hat)
    q[-1] -= h * 0.08 * (ring[-1] - t0) + to_hat
    to_hub, to_back = 15 * (hat - hub), 2.1 * (lining - back)
    to_cal, to_fluid, wet = 0.9 * (back - caliper), 1.1 * (back - fluid), 4 * (fluid - caliper)
    return np.concatenate([q / per, [(to_hat - to_hub - h * 0.05 * (hat - t0)) / 700, (p * 0.04 + across - to_back) / 260,
                                     (to_back - to_cal - to_fluid) / 300, (to_cal + wet - h * 0.08 * (caliper - t0)) / 2800,
                                     (to_fluid - wet) / 110, (to_hub - 2 * (hub - t0)) / 2500]])


x = np.concatenate([np.zeros(n), np.full(6, t0)])
rounds = 12
begin = time.perf_counter()
for _ in range(rounds):
    for phase in ((45.0, 20.0, 2.8, True), (20.0, 45.0, 12.0, False)):
        x = solve_ivp(rhs, (0, phase[2]), x, "LSODA", args=phase, rtol=1e-6, atol=1e-3).y[:, -1]
took = time.perf_counter() - begin
print(f"SciPy, twelve laps of two wheels of two setups: {took / rounds * 120 * 4 * 1000:.0f} ms")
