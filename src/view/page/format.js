// Numbers as the program prints them (src/quantity/number.cpp), in the units of the model.

export function number(value, digits) {
  if (value === null || value === undefined || !Number.isFinite(value)) return '–';
  if (value === 0) return '0';
  const v = value * (1 + 4e-13);
  const rounded = v.toExponential(digits - 1);
  const [mantissa, power] = rounded.split('e');
  const exponent = Number(power);
  if (exponent < -4 || exponent > 9) {
    const sign = exponent < 0 ? '-' : '+';
    return `${mantissa}e${sign}${String(Math.abs(exponent)).padStart(2, '0')}`;
  }
  if (exponent >= digits) {
    const unit = 10 ** (exponent - digits + 1);
    return (Math.round(v / unit) * unit).toFixed(0);
  }
  return v.toFixed(digits - 1 - exponent);
}

export function shortNumber(value, digits) {
  const text = number(value, digits);
  if (!text.includes('.') || text.includes('e')) return text;
  return text.replace(/0+$/, '').replace(/\.$/, '');
}

// What is only rounding beside the largest of its kind is 0.
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
