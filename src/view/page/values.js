// Diagrams in pieces: the value of each is a sum of powers of the distance from where it begins.

export function pieceAt(pieces, x, before = false) {
  let i = 0;
  while (i + 1 < pieces.length && (before ? x > pieces[i][1] : x >= pieces[i][1])) ++i;
  const p = pieces[i];
  const t = x - p[0];
  let value = 0;
  for (let k = p.length - 1; k >= 2; --k) value = value * t + p[k];
  return value;
}

// Largest and least with their places: at ends of pieces and between them, found by halving.
export function extremes(pieces) {
  let max = {value: -Infinity, at: 0};
  let min = {value: Infinity, at: 0};
  const offer = (value, at) => {
    const near = 1e-11 * Math.max(Math.abs(max.value), Math.abs(value));
    if (value > max.value + (Number.isFinite(near) ? near : 0)) max = {value, at};
    if (value < min.value - (Number.isFinite(near) ? near : 0)) min = {value, at};
  };
  for (const p of pieces) {
    const value = (t) => {
      let v = 0;
      for (let k = p.length - 1; k >= 2; --k) v = v * t + p[k];
      return v;
    };
    const slope = (t) => {
      let v = 0;
      for (let k = p.length - 1; k >= 3; --k) v = v * t + (k - 2) * p[k];
      return v;
    };
    const length = p[1] - p[0];
    offer(value(0), p[0]);
    offer(value(length), p[1]);
    if (p.length < 5) continue;
    const steps = 24;
    for (let i = 0; i < steps; ++i) {
      let a = (length * i) / steps;
      let b = (length * (i + 1)) / steps;
      if (slope(a) * slope(b) > 0) continue;
      for (let n = 0; n < 60; ++n) {
        const middle = (a + b) / 2;
        if (slope(a) * slope(middle) <= 0) b = middle;
        else a = middle;
      }
      offer(value((a + b) / 2), p[0] + (a + b) / 2);
    }
  }
  return {max, min};
}

// Places that have their values ready, in order; one with two sides is two entries.
export function nearestPlace(places, x) {
  let best = 0;
  for (let i = 1; i < places.length; ++i)
    if (Math.abs(places[i][0] - x) < Math.abs(places[best][0] - x)) best = i;
  return places[best][0];
}

export function entriesAt(places, at) {
  return places.filter((p) => Math.abs(p[0] - at) <= 1e-9 * Math.max(1, Math.abs(at)));
}

// Normal stress at a place (y, z) of the section: N/A and bending about both axes, with the product of inertia where
// the section is free to bend about both.
export function bendingOf(section, bends) {
  const {A, Iy, Iz} = section;
  const Iyz = bends[0] && bends[1] ? section.Iyz : 0;
  const d = Iy * Iz - Iyz * Iyz;
  return (N, My, Mz, y, z) => {
    const ky = d > 0 ? (Mz * Iy - My * Iyz) / d : 0;
    const kz = d > 0 ? (My * Iz - Mz * Iyz) / d : 0;
    return N / A - ky * y - kz * z;
  };
}
