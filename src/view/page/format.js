// Numbers as the program prints them (include/corvex/number.hpp), in the units of the model.

const mostWithTies = 6, roundOff = 4e-13;

// Significant digits, 1 to 15, rounded once; ties away from zero, up to 6 digits also those that round-off has lowered.
export function number(value, digits) {
  if (value === null || value === undefined || !Number.isFinite(value)) return '–';
  if (value === 0) return '0';
  const raised = value * (1 + roundOff);
  const v = digits <= mostWithTies && Number.isFinite(raised) ? raised : value;
  const [mantissa, power] = v.toExponential(digits - 1).split('e');
  const exponent = Number(power);
  if (exponent < -4 || exponent > 9) {
    const sign = exponent < 0 ? '-' : '+';
    return `${mantissa}e${sign}${String(Math.abs(exponent)).padStart(2, '0')}`;
  }
  const sign = mantissa.startsWith('-') ? '-' : '';
  const text = mantissa.replace(/[-.]/g, '');
  if (exponent >= digits - 1) return sign + text + '0'.repeat(exponent - digits + 1);
  if (exponent < 0) return `${sign}0.${'0'.repeat(-exponent - 1)}${text}`;
  return `${sign}${text.slice(0, exponent + 1)}.${text.slice(exponent + 1)}`;
}

// Without trailing zeros behind the point.
export function shortNumber(value, digits) {
  const [mantissa, power] = number(value, digits).split('e');
  if (!mantissa.includes('.')) return number(value, digits);
  const short = mantissa.replace(/0+$/, '').replace(/\.$/, '');
  return power ? `${short}e${power}` : short;
}

// Rounding error relative to the largest of its kind is 0.
export function clean(value, size) {
  return Math.abs(value) <= 1e-9 * size ? 0 : value;
}

export const figures = {
  axial: {symbol: 'N', unit: 'force', kind: 'force'},
  shear_y: {symbol: 'Vy', unit: 'force', kind: 'force'},
  shear_z: {symbol: 'Vz', unit: 'force', kind: 'force'},
  torsion: {symbol: 'T', unit: 'moment', kind: 'moment'},
  moment_y: {symbol: 'My', unit: 'moment', kind: 'moment'},
  moment_z: {symbol: 'Mz', unit: 'moment', kind: 'moment'},
  deflection_x: {symbol: 'defl. x', unit: 'deflection', kind: 'movement'},
  deflection_y: {symbol: 'defl. y', unit: 'deflection', kind: 'movement'},
  deflection_z: {symbol: 'defl. z', unit: 'deflection', kind: 'movement'},
  x: {symbol: 'x', unit: 'deflection', kind: 'movement'},
  y: {symbol: 'y', unit: 'deflection', kind: 'movement'},
  z: {symbol: 'z', unit: 'deflection', kind: 'movement'},
  twist: {symbol: 'twist', unit: 'angle', kind: 'rotation'},
  rotation_y: {symbol: 'rot. y', unit: 'angle', kind: 'rotation'},
  rotation_z: {symbol: 'rot. z', unit: 'angle', kind: 'rotation'},
};

export function inUnit(value, unit, digits) {
  return `${number(value / unit[1], digits)} ${unit[0]}`;
}

export function shortInUnit(value, unit, digits) {
  return `${shortNumber(value / unit[1], digits)} ${unit[0]}`;
}
