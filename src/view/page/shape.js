// The structure as it is drawn: places along each member at rest, and how they move in a case. Worked out once a case.
import {add, times} from './vectors.js';
import {pieceAt} from './values.js';

export const samples = 25; // along a member

export function restShape(model) {
  const all = new Float64Array(model.members.length * samples * 3);
  model.members.forEach((m, i) => {
    for (let k = 0; k < samples; ++k) {
      const t = k / (samples - 1);
      for (let c = 0; c < 3; ++c) all[(i * samples + k) * 3 + c] = m.a[c] + (m.b[c] - m.a[c]) * t;
    }
  });
  return all;
}

export function movementAt(member, result, x) {
  const p = result.pieces;
  const local = [pieceAt(p.deflection_x, x), pieceAt(p.deflection_y, x), pieceAt(p.deflection_z, x)];
  return add(add(times(member.x, local[0]), times(member.y, local[1])), times(member.z, local[2]));
}

export function movements(model, load) {
  const all = new Float64Array(model.members.length * samples * 3);
  model.members.forEach((m, i) => {
    for (let k = 0; k < samples; ++k) {
      const v = movementAt(m, load.members[i], (m.length * k) / (samples - 1));
      for (let c = 0; c < 3; ++c) all[(i * samples + k) * 3 + c] = v[c];
    }
  });
  return all;
}

// The shape of a mode: the largest movement is 1.
export function modeMovements(model, mode) {
  const all = new Float64Array(model.members.length * samples * 3);
  mode.members.forEach((values, i) => all.set(values, i * samples * 3));
  return all;
}

export function largest(movement) {
  let most = 0;
  for (let i = 0; i < movement.length; i += 3) most = Math.max(most, Math.hypot(movement[i], movement[i + 1], movement[i + 2]));
  return most;
}

// Diagrams drawn across the members: pieces, direction, symbol.
export function courses(model, load, what) {
  const all = [];
  model.members.forEach((m, i) => {
    const p = load.members[i].pieces;
    const beam = m.kind === 'beam';
    const [aboutY, aboutZ] = m.bends;
    const across = aboutZ ? m.y : m.z;
    const course = (name, direction, symbol) => p[name] && all.push({member: i, pieces: p[name], direction, symbol});
    if (what === 'axial') course('axial', across, '');
    if (what === 'torsion' && beam) course('torsion', across, '');
    if (what === 'shear' && beam) {
      if (aboutZ) course('shear_y', m.y, aboutY ? 'Vy ' : '');
      if (aboutY) course('shear_z', m.z, aboutZ ? 'Vz ' : '');
    }
    // Moments are drawn on the tension side.
    if (what === 'moment' && beam) {
      if (aboutZ) course('moment_z', times(m.y, -1), aboutY ? 'Mz ' : '');
      if (aboutY) course('moment_y', times(m.z, -1), aboutZ ? 'My ' : '');
    }
  });
  return all;
}
