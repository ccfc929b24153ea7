export const add = (a, b) => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const sub = (a, b) => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const times = (a, f) => [a[0] * f, a[1] * f, a[2] * f];
export const dot = (a, b) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a, b) => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
export const size = (a) => Math.hypot(a[0], a[1], a[2]);
export const unit = (a) => {
  const l = size(a);
  return l > 0 ? times(a, 1 / l) : [0, 0, 0];
};
// Turned about a unit axis.
export function turned(v, axis, angle) {
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  return add(add(times(v, c), times(cross(axis, v), s)), times(axis, dot(axis, v) * (1 - c)));
}
